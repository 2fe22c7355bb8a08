import * as z from 'zod';
import type { SettingValue } from '../kinds';
import { idSchema } from './id-schema';

/** What a setting can hold. */
export const settingValue: z.ZodType<SettingValue> = z.union([
  z.number(),
  z.string().max(200),
  z.boolean(),
]);
export const settings = z.record(idSchema, settingValue);
export type { SettingValue };

/**
 * Where a device keeps a sound: a program of 0 to 127 as on the wire and, where it takes bank
 * select, a bank from 0.
 */
export const addressSchema = z.looseObject({
  bank: z.number().int().min(0).max(16383).optional(),
  number: z.number().int().min(0).max(127),
});
export type Address = z.infer<typeof addressSchema>;

/** What a device is doing: engaged or bypassed, where its controls stand, and the program that holds it. */
export const stateSchema = z.looseObject({
  engaged: z.boolean().optional(),
  settings: settings.optional(),
  program: addressSchema.optional(),
});
export type State = z.infer<typeof stateSchema>;
