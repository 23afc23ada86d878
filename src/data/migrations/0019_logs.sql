CREATE TABLE "logs" (
	"id" text PRIMARY KEY NOT NULL,
	"version" text NOT NULL,
	"name" text NOT NULL,
	"facts" jsonb NOT NULL,
	"content" "bytea" NOT NULL,
	"steps" jsonb NOT NULL,
	"judged" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE INDEX "logs_version" ON "logs" USING btree ("version");