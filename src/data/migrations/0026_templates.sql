CREATE TABLE "templates" (
	"id" text PRIMARY KEY NOT NULL,
	"content" jsonb NOT NULL,
	"revision" integer NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"deleted_at" timestamp with time zone
);
