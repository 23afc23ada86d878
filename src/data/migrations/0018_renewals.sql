CREATE TABLE "live_signals" (
	"id" text NOT NULL,
	"number" integer NOT NULL,
	"run" text NOT NULL,
	"version" text NOT NULL,
	"name" text NOT NULL,
	"at" double precision NOT NULL,
	CONSTRAINT "live_signals_id_number_pk" PRIMARY KEY("id","number")
);
--> statement-breakpoint
CREATE TABLE "renewals" (
	"run" text NOT NULL,
	"edition" integer NOT NULL,
	"version" text NOT NULL,
	"revision" integer NOT NULL,
	"process" text NOT NULL,
	"model" jsonb NOT NULL,
	"called" jsonb NOT NULL,
	"decisions" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "renewals_run_edition_pk" PRIMARY KEY("run","edition")
);
--> statement-breakpoint
ALTER TABLE "live_cases" ADD COLUMN "edition" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "live_waits" ADD COLUMN "awaited" text;--> statement-breakpoint
ALTER TABLE "live_waits" ADD COLUMN "due_by" double precision;--> statement-breakpoint
ALTER TABLE "runs" ADD COLUMN "edition" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "runs" ADD COLUMN "starts" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "runs" ADD COLUMN "starts_at" double precision;--> statement-breakpoint
CREATE INDEX "live_waits_awaited" ON "live_waits" USING btree ("run","awaited");