/** The reference library for statistics in tests has no types of its own; these are the parts that are used. */
declare module "jstat" {
  interface Law {
    cdf(x: number, ...parameters: number[]): number;
    inv(share: number, ...parameters: number[]): number;
    mean(...parameters: number[]): number;
    variance(...parameters: number[]): number;
  }
  export const jStat: { readonly [law: string]: Law } & {
    readonly studentt: Law;
    gammafn(x: number): number;
  };
}
