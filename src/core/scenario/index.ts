export { emptySimulation, putFigures, takeFigures } from "./bpsim";
export { currencyOf, type Estimate, estimatesOf, holderIn, simulationHolder } from "./estimates";
