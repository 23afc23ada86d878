export type { ReportedForecast } from "./forecastReport";
export { type Manifest, makePackage, type PackageRequest } from "./package";
