CREATE TABLE "files" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"content" "bytea" NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "elements" ADD COLUMN "words" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "elements" ADD COLUMN "called" text;