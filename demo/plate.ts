/** What hangs the lantern, on one bed: columns of the demo's lineups, by their names, where they stand. */
export const demoPlate = {
  name: 'What hangs the lantern',
  order: 'together',
  items: [
    { lineup: 'Carry hook for the harbour lantern', candidate: 'everyday', x: -17, y: 0, turn: 0 },
    { lineup: 'Vent collar: bridged or held up', candidate: 'as it stands', x: -81, y: 0, turn: 0 },
    { lineup: 'Finial: tall and thin', candidate: 'everyday', x: 37, y: 18, turn: 0 },
    { lineup: 'Wick-knob: small detail', candidate: 'everyday', x: 35, y: -18, turn: 0 },
    { lineup: 'Carry hook for the harbour lantern', candidate: 'everyday', x: 83, y: 4, turn: 180 },
  ],
} as const
