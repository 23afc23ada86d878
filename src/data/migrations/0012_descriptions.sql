CREATE TABLE "descriptions" (
	"name" text PRIMARY KEY NOT NULL,
	"content" jsonb NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
