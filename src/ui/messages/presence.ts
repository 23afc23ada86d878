/** Words about who else is here. */
export const presenceWords = {
  title: "Who else is here",
  at: (name: string, stage: string) => `${name} is here too, at ${stage}`,
  follow: (name: string, stage: string) => `${name} is here too, at ${stage}. Follow what ${name} looks at`,
  stop: (name: string) => `Stop following ${name}`,
  following: (name: string) => `You see what ${name} looks at.`,
  stopShort: "Stop",
  chosen: (name: string) => `${name} has chosen this`,
};
