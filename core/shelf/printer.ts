import { z } from 'zod'
import { settingValuesSchema } from '../profile/settings'
import { chosenSchoolsSchema } from '../schools/schools'

const perAxis = z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() })

/** A machine: what it can hold, how it moves and what it costs to run. Lengths mm, speeds mm/s, accelerations mm/s². */
export const printerSchema = z.object({
  key: z.string().regex(/^[a-z0-9.-]+$/),
  name: z.string().min(1).max(80),
  kinematics: z.enum(['movingBed', 'crossBelt', 'delta', 'tiltedBelt']),
  /** Of a tilted belt: angle between gantry and belt, degrees. */
  beltAngle: z.number().min(15).max(75).optional(),
  buildVolume: z.tuple([z.number().positive(), z.number().positive(), z.number().positive()]),
  /** A round bed is as wide as its build volume. Rectangular unless told otherwise. */
  bedShape: z.enum(['rectangle', 'round']).optional(),
  /** What the firmware allows, whatever a profile asks. */
  limits: z.object({
    speed: perAxis,
    acceleration: perAxis,
    /** Filament feed. */
    extruderSpeed: z.number().positive(),
    extruderAcceleration: z.number().positive(),
  }),
  /**
   * How speed at corners is bounded: by the deviation from the path that a square corner at `cornerSpeed` would give, or
   * by the largest instant change of speed per axis.
   */
  cornerSchool: z.enum(['deviation', 'instantChange']),
  extruder: z.enum(['direct', 'tube']),
  /** Between extruder and hot end, mm; only where it is fed through one. */
  tubeLength: z.number().positive().max(3000).optional(),
  hotEnd: z.object({
    class: z.enum(['short', 'long', 'extraLong']),
    maxTemperature: z.number().positive(),
    /** What the filament runs in down to the nozzle; a plastic lining gives off harmful gas when it is overheated. */
    lining: z.enum(['metal', 'plastic']).optional(),
    /** Of the nozzles that it takes, as they are sold: "M6". */
    thread: z.string().max(20).optional(),
    /** How long a nozzle's thread its block takes: about 5.5, 14 or 50 mm. */
    threadLength: z.number().positive().max(100).optional(),
  }),
  filamentDiameter: z.number().positive(),
  enclosed: z.boolean(),
  /** Heat that a full part fan takes off a layer, W/(m²·K); 100 is a strong duct. */
  cooling: z.number().positive().optional(),
  /** What it stands on. */
  table: z.enum(['steady', 'ordinary', 'shaky']).optional(),
  /** Own frequency of the frame under the head, Hz. */
  frameFrequency: z.number().positive().optional(),
  /** The same along Y, where that was measured by itself. */
  frameFrequencyY: z.number().positive().optional(),
  /** Its firmware shapes accelerations so that the frame swings less. */
  shaping: z.boolean().optional(),
  /** The frequency that the shaping is tuned to along X, and along Y where that is another, Hz. */
  shapedAt: z.number().positive().max(1000).optional(),
  shapedAtY: z.number().positive().max(1000).optional(),
  /** By how much its firmware feeds ahead of pressure that lags, s; 0 where it does not. */
  pressureAdvance: z.number().min(0).max(5).optional(),
  /** Its programs have curves written as arcs (G2, G3). */
  arcs: z.boolean().optional(),
  /** Room that the head needs when copies are printed one at a time: to every side, and above a finished one, mm. */
  clearance: z.object({ radius: z.number().positive(), height: z.number().positive() }).optional(),
  /** What happens before the first line: fixed steps, and heaters as first-order systems (time constant, end temperature). */
  start: z
    .object({
      homingS: z.number().min(0),
      purgeS: z.number().min(0),
      bed: z.object({ tauS: z.number().positive(), reachC: z.number().positive() }),
      nozzle: z.object({ tauS: z.number().positive(), reachC: z.number().positive() }),
      /** Power while it heats up, W; as while printing where it is not told. */
      watts: z.number().positive().max(5000).optional(),
    })
    .optional(),
  /** What its programs begin and end with, in place of the usual: see `ownText.ts` for what stands for numbers in it. */
  startText: z.string().max(20_000).optional(),
  endText: z.string().max(20_000).optional(),
  /** Where it listens for programs, line by line: "127.0.0.1:4831". */
  address: z
    .string()
    .regex(/^[a-zA-Z0-9.-]+:\d{1,5}$/, 'Write it as host:port, for example 127.0.0.1:4831.')
    .optional(),
  /** Power while printing, on average, W. */
  watts: z.number().positive().max(5000).optional(),
  /** Money per printing hour: power, wear and the share of the purchase price. */
  costPerHour: z.number().min(0),
  /** Sides on which its owner stands where practitioners disagree. */
  schools: chosenSchoolsSchema.optional(),
  defaults: settingValuesSchema,
})
export type Printer = z.infer<typeof printerSchema>
