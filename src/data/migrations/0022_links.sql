CREATE TABLE "links" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"revision" integer,
	"name" text NOT NULL,
	"token" text NOT NULL,
	"password" text,
	"expires_at" timestamp with time zone,
	"failures" integer DEFAULT 0 NOT NULL,
	"locked_until" timestamp with time zone,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"withdrawn_at" timestamp with time zone,
	CONSTRAINT "links_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE INDEX "links_version" ON "links" USING btree ("version");