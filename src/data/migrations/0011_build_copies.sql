CREATE TABLE "build_copies" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"place" text NOT NULL,
	"branch" text NOT NULL,
	"path" text NOT NULL,
	"base" text,
	"mark" text,
	"revision" integer,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "build_steps" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"copy" text NOT NULL,
	"what" text NOT NULL,
	"mark" text,
	"changes" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE INDEX "build_copies_version" ON "build_copies" USING btree ("version");--> statement-breakpoint
CREATE INDEX "build_steps_version" ON "build_steps" USING btree ("version");