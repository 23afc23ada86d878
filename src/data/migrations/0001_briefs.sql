CREATE TABLE "briefs" (
	"id" text PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"content" jsonb NOT NULL,
	"member" text NOT NULL,
	"changed_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "word_links" (
	"version" text NOT NULL,
	"mark" text NOT NULL,
	"element" text NOT NULL,
	CONSTRAINT "word_links_version_mark_element_pk" PRIMARY KEY("version","mark","element")
);
--> statement-breakpoint
ALTER TABLE "processes" ADD COLUMN "brief" text;