import type { components, operations } from './schema';

type Schemas = components['schemas'];

export type Session = Schemas['Session'];
export type Project = Schemas['Project'];
export type Brief = Schemas['Brief'];
export type Keyword = Schemas['Keyword'];
export type Limits = Schemas['Limits'];
export type Purpose = Brief['purpose'];
export type Cell = Schemas['Cell'];
export type Status = Cell['status'];
export type Row = Schemas['Row'];
export type Page = Schemas['Page'];
export type Funnel = Schemas['Funnel'];
export type Judged = Schemas['Judged'];
export type Measure = Schemas['Measure'];
export type Weighing = Schemas['Weighing'];
export type Example = Schemas['Example'];
export type Dots = Schemas['Dots'];
export type Check = Schemas['Check'];
export type Watch = Schemas['Watch'];
export type Opened = Schemas['Opened'];
export type Offer = Schemas['Offer'];
export type Making = Schemas['Making'];
export type Kept = Schemas['Kept'];
export type Question = NonNullable<operations['listNames']['parameters']['query']>;
