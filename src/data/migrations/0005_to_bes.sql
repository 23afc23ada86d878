CREATE TABLE "change_reasons" (
	"version" text NOT NULL,
	"against" text NOT NULL,
	"change" text NOT NULL,
	"words" text NOT NULL,
	"content" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "change_reasons_version_against_change_pk" PRIMARY KEY("version","against","change")
);
--> statement-breakpoint
ALTER TABLE "versions" ADD COLUMN "aim" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "versions" ADD COLUMN "adopted_at" timestamp with time zone;