/** Cross-section of a line that keeps to its place beside neighbours, mm²: height × width (models §1). */
export const lineArea = (height: number, width: number): number => height * width

/** Flow, mm³/s, of a line of `area` mm² laid at `speed` mm/s. */
export const flowAt = (area: number, speed: number): number => area * speed

/** Fastest speed, mm/s, at which a line of `area` mm² needs no more than `flow` mm³/s. */
export const speedForFlow = (flow: number, area: number): number => flow / area

/** Cross-section of filament, mm². */
export const filamentArea = (diameter: number): number => (Math.PI * diameter * diameter) / 4

/** Length of filament, mm, that holds `volume` mm³. */
export const filamentLength = (volume: number, diameter: number): number => volume / filamentArea(diameter)

/** Mass, g, of `volume` mm³ at `density` g/cm³. */
export const massOf = (volume: number, density: number): number => (volume * density) / 1000
