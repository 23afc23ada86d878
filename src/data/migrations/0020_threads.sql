CREATE TABLE "threads" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"origin" text NOT NULL,
	"about" jsonb NOT NULL,
	"said" jsonb NOT NULL,
	"assigned" text,
	"resolved_by" text,
	"resolved_at" timestamp with time zone,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE INDEX "threads_version" ON "threads" USING btree ("version");