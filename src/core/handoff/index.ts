export { type Manifest, makePackage, type PackageRequest } from "./package";
