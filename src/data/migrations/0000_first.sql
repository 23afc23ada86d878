CREATE TABLE "areas" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"parent" text,
	"rank" integer DEFAULT 0 NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "directory" (
	"id" text PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"description" text DEFAULT '' NOT NULL,
	"unit" text,
	"hue" text,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "elements" (
	"version" text NOT NULL,
	"element" text NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	CONSTRAINT "elements_version_element_pk" PRIMARY KEY("version","element")
);
--> statement-breakpoint
CREATE TABLE "handoffs" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"revision" integer NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"manifest" jsonb NOT NULL,
	"package" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "heads" (
	"version" text PRIMARY KEY NOT NULL,
	"sequence" integer NOT NULL,
	"snapshot_sequence" integer NOT NULL,
	"snapshot" jsonb NOT NULL,
	"changed_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "log" (
	"version" text NOT NULL,
	"sequence" integer NOT NULL,
	"batch" text NOT NULL,
	"label" text NOT NULL,
	"commands" jsonb NOT NULL,
	"edits" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "log_version_sequence_pk" PRIMARY KEY("version","sequence")
);
--> statement-breakpoint
CREATE TABLE "members" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "processes" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"area" text NOT NULL,
	"rank" integer DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"version" text NOT NULL,
	"number" integer NOT NULL,
	"reason" text NOT NULL,
	"sequence" integer NOT NULL,
	"model" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "revisions_version_number_pk" PRIMARY KEY("version","number")
);
--> statement-breakpoint
CREATE TABLE "uses" (
	"id" serial PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"entry" text NOT NULL,
	"element" text NOT NULL,
	"element_name" text NOT NULL,
	"how" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "versions" (
	"id" text PRIMARY KEY NOT NULL,
	"process" text NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"source" text,
	"created_at" timestamp with time zone NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "waivers" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"finding" text NOT NULL,
	"reason" text NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "workspace" (
	"key" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX "log_batch" ON "log" USING btree ("version","batch");--> statement-breakpoint
CREATE INDEX "uses_entry" ON "uses" USING btree ("entry");--> statement-breakpoint
CREATE INDEX "uses_version" ON "uses" USING btree ("version");