'use server';
/** A plan is asked for, stopped, and changed by hand. */
import {
  addAbsence,
  addShutdown,
  absenceSchema,
  askPlan,
  askPlanSchema,
  fixPlanned,
  planSiteSchema,
  putPlanned,
  putSchema,
  removeAbsence,
  removeShutdown,
  setHours,
  setPlanSite,
  shutdownSchema,
  stopPlan,
  takeOutOfPlan,
} from '@barys/store/planning';
import { within } from '@barys/core/errors';
import { parseTyped } from '@barys/core/text';
import { z } from 'zod';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { workApart } from '@/server/apart';

const typedNumber = (field: string, text: string): number => within(field, () => parseTyped(text).value);

const id = z.number().int().positive();
const seen = z.number().int().positive().nullable();

export async function askPlanAction(entry: { firstDay: string; days: number }): Promise<Answer> {
  return thenStay(async () => {
    const asked = askPlanSchema.parse(entry);
    workApart('plan-worker', await act((tx, actor) => askPlan(tx, actor, asked)));
  });
}

export async function stopPlanAction(making: number): Promise<Answer> {
  return thenStay(() => act((tx, actor) => stopPlan(tx, actor, id.parse(making))));
}

const moveSchema = putSchema.extend({ instrumentId: id, seen });

/** Where an instrument goes, as it was looked at; minutes as a number or as they are typed. */
export interface Move {
  readonly instrumentId: number;
  readonly seen: number | null;
  readonly personId: number;
  readonly day: string;
  readonly minutes: number | string;
  readonly references: readonly string[];
}

const MOST_MOVES = 100;

/** Puts instruments somewhere: all of them, or none. */
export async function putAction(moves: readonly Move[]): Promise<Answer> {
  return thenStay(async () => {
    const read = z
      .array(z.looseObject({ minutes: z.union([z.number(), z.string()]) }))
      .min(1)
      .max(MOST_MOVES)
      .parse(moves);
    const asked = read.map(({ minutes, ...move }) =>
      moveSchema.parse({
        ...move,
        minutes: typeof minutes === 'string' ? typedNumber('minutes', minutes) : minutes,
      }),
    );
    await act(async (tx, actor) => {
      for (const { instrumentId, seen: revision, ...entry } of asked)
        await putPlanned(tx, actor, instrumentId, revision, entry);
    });
  });
}

const oneSchema = z.object({ instrumentId: id, seen: z.number().int().positive() });

export async function fixAction(entry: {
  instrumentId: number;
  seen: number;
  isFixed: boolean;
}): Promise<Answer> {
  return thenStay(async () => {
    const asked = oneSchema.extend({ isFixed: z.boolean() }).parse(entry);
    await act((tx, actor) => fixPlanned(tx, actor, asked.instrumentId, asked.seen, asked.isFixed));
  });
}

export async function takeOutAction(entry: { instrumentId: number; seen: number }): Promise<Answer> {
  return thenStay(async () => {
    const asked = oneSchema.parse(entry);
    await act((tx, actor) => takeOutOfPlan(tx, actor, asked.instrumentId, asked.seen));
  });
}

export async function setPlanSiteAction(entry: Record<string, string>): Promise<Answer> {
  return thenStay(async () => {
    const site = planSiteSchema.parse({
      walkMinutes: typedNumber('walkMinutes', entry['walkMinutes'] ?? ''),
      permitMinutes: typedNumber('permitMinutes', entry['permitMinutes'] ?? ''),
      dayBegins: entry['dayBegins'] ?? '',
      graceDays: typedNumber('graceDays', entry['graceDays'] ?? ''),
    });
    await act((tx, actor) => setPlanSite(tx, actor, site));
  });
}

/** Hours as they are typed, a day each; kept in whole minutes. */
const HOURS = 'The hours of a day are from 0 to 24.';
const hoursSchema = z.object({ hours: z.array(z.number().min(0, HOURS).max(24, HOURS)).length(7) });

/** Hours as they are typed, from Monday to Sunday; kept in whole minutes. */
export async function setHoursAction(entry: { personId: number; hours: readonly string[] }): Promise<Answer> {
  return thenStay(async () => {
    const { hours } = hoursSchema.parse({
      hours: entry.hours.map((text, index) => typedNumber(`hours.${index}`, text)),
    });
    const minutes = hours.map((of) => Math.round(of * 60));
    await act((tx, actor) => setHours(tx, actor, id.parse(entry.personId), minutes));
  });
}

export async function addAbsenceAction(entry: Record<string, string>): Promise<Answer> {
  return thenStay(async () => {
    const absence = absenceSchema.parse({ ...entry, personId: Number(entry['personId']) });
    await act((tx, actor) => addAbsence(tx, actor, absence));
  });
}

export async function removeAbsenceAction(absence: number): Promise<Answer> {
  return thenStay(() => act((tx, actor) => removeAbsence(tx, actor, id.parse(absence))));
}

export async function addShutdownAction(entry: Record<string, string>): Promise<Answer> {
  return thenStay(async () => {
    const shutdown = shutdownSchema.parse(entry);
    await act((tx, actor) => addShutdown(tx, actor, shutdown));
  });
}

export async function removeShutdownAction(shutdown: number): Promise<Answer> {
  return thenStay(() => act((tx, actor) => removeShutdown(tx, actor, id.parse(shutdown))));
}
