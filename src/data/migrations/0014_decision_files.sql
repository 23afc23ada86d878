CREATE TABLE "decision_files" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"content" text NOT NULL,
	"decisions" jsonb NOT NULL,
	"revision" integer NOT NULL,
	"save" text DEFAULT '' NOT NULL,
	"member" text NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"deleted_at" timestamp with time zone
);
