import { type MachineState, machineStateSchema } from '@sable/contract/machines'
import { queryOptions } from '@tanstack/react-query'
import { z } from 'zod'
import { asJsonBody, fetchJson } from './client'

const address = (printer: string): string => `/api/machines/${encodeURIComponent(printer)}`
const EVERY_MS = 1000
/** A machine is waited for as long as a network takes. */
const PATIENCE_MS = 30_000

/** How a machine stands, asked again and again while it is looked at. */
export const machineQuery = (printer: string) =>
  queryOptions({
    queryKey: ['machine', printer],
    queryFn: () => fetchJson(machineStateSchema, address(printer)),
    refetchInterval: EVERY_MS,
    retry: false,
  })

export type MachineAct = 'connect' | 'print' | 'pause' | 'resume' | 'end' | 'halt' | 'disconnect' | 'give-up'

export const actOn = (printer: string, act: MachineAct, body: object = {}): Promise<MachineState> =>
  fetchJson(machineStateSchema, `${address(printer)}/${act}`, { ...asJsonBody('POST', body), patienceMs: PATIENCE_MS })

/** Keeps a print's program, so that a machine can be sent it. */
export const sendProgram = (print: string, program: Blob): Promise<unknown> =>
  fetchJson(z.unknown(), `/api/prints/${encodeURIComponent(print)}/program`, {
    method: 'POST',
    body: program,
    headers: { 'Content-Type': 'application/octet-stream' },
    patienceMs: Number.POSITIVE_INFINITY,
  })
