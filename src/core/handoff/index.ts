export type { ReportedForecast } from "./forecastReport";
export { makePackage, type PackageRequest } from "./package";
export { type Manifest, type PartState, type VerifiedPackage, verifyPackage } from "./verify";
