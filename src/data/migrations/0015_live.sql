CREATE TABLE "live_cases" (
	"run" text NOT NULL,
	"number" integer NOT NULL,
	"version" text NOT NULL,
	"state" text NOT NULL,
	"is_suspended" boolean DEFAULT false NOT NULL,
	"content" jsonb NOT NULL,
	"began" double precision NOT NULL,
	"ended" double precision,
	"due_at" double precision,
	"events" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "live_cases_run_number_pk" PRIMARY KEY("run","number")
);
--> statement-breakpoint
CREATE TABLE "live_events" (
	"run" text NOT NULL,
	"number" integer NOT NULL,
	"sequence" integer NOT NULL,
	"version" text NOT NULL,
	"kind" text NOT NULL,
	"at" double precision NOT NULL,
	"element" text,
	"wait" integer,
	"instance" integer,
	"member" text,
	"reason" text,
	"act" text,
	"data" jsonb,
	CONSTRAINT "live_events_run_number_sequence_pk" PRIMARY KEY("run","number","sequence")
);
--> statement-breakpoint
CREATE TABLE "live_waits" (
	"run" text NOT NULL,
	"number" integer NOT NULL,
	"wait" integer NOT NULL,
	"version" text NOT NULL,
	"kind" text NOT NULL,
	"element" text NOT NULL,
	"label" text NOT NULL,
	"role" text,
	"role_name" text NOT NULL,
	"member" text,
	"since" double precision NOT NULL,
	"due" double precision,
	"tried" integer DEFAULT 0 NOT NULL,
	"draft" jsonb,
	"reason" text,
	CONSTRAINT "live_waits_run_number_wait_pk" PRIMARY KEY("run","number","wait")
);
--> statement-breakpoint
CREATE TABLE "runs" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"name" text NOT NULL,
	"revision" integer NOT NULL,
	"process" text NOT NULL,
	"model" jsonb NOT NULL,
	"called" jsonb NOT NULL,
	"decisions" jsonb NOT NULL,
	"clock" jsonb NOT NULL,
	"stand_ins" jsonb NOT NULL,
	"seed" integer NOT NULL,
	"cases" integer DEFAULT 0 NOT NULL,
	"ended_at" timestamp with time zone,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "roles" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "live_cases_due" ON "live_cases" USING btree ("run","due_at");--> statement-breakpoint
CREATE INDEX "live_cases_state" ON "live_cases" USING btree ("run","state");--> statement-breakpoint
CREATE INDEX "live_events_element" ON "live_events" USING btree ("run","element");--> statement-breakpoint
CREATE INDEX "live_events_act" ON "live_events" USING btree ("run","act");--> statement-breakpoint
CREATE INDEX "live_waits_kind" ON "live_waits" USING btree ("run","kind");--> statement-breakpoint
CREATE INDEX "runs_version" ON "runs" USING btree ("version");