CREATE TABLE "reviews" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"revision" integer NOT NULL,
	"sequence" integer NOT NULL,
	"question" text NOT NULL,
	"due" text,
	"reviewers" jsonb NOT NULL,
	"answers" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"withdrawn_at" timestamp with time zone
);
--> statement-breakpoint
CREATE INDEX "reviews_version" ON "reviews" USING btree ("version");