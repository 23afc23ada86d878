CREATE TABLE "verdicts" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"revision" integer NOT NULL,
	"sequence" integer NOT NULL,
	"profile" text NOT NULL,
	"content" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "walk_tests" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"name" text NOT NULL,
	"rank" integer NOT NULL,
	"content" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "versions" ADD COLUMN "profile" text DEFAULT 'review' NOT NULL;--> statement-breakpoint
ALTER TABLE "waivers" ADD COLUMN "about" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "verdicts_version" ON "verdicts" USING btree ("version");--> statement-breakpoint
CREATE INDEX "walk_tests_version" ON "walk_tests" USING btree ("version");