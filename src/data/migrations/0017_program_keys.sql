CREATE TABLE "program_keys" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"hash" text NOT NULL,
	"member" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"withdrawn_at" timestamp with time zone
);
