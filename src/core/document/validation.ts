import 'reflect-metadata';
import { plainToInstance, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  getMetadataStorage,
  IsArray,
  IsInt,
  IsNumber,
  IsObject,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
  validateSync,
  type ValidationArguments,
  type ValidationError,
} from 'class-validator';
import { isPlain } from '../plain';

/** A class whose decorators say what a part of a document may be. */
export type Schema<T extends object = object> = new () => T;

/** The schemas of parts that lie within others, by schema and property. */
const parts = new WeakMap<object, Map<string, () => Schema>>();

function note(target: object, key: string | symbol, type: () => Schema): void {
  const own = parts.get(target.constructor) ?? new Map<string, () => Schema>();
  parts.set(target.constructor, own.set(String(key), type));
}

function decorate(target: object, key: string | symbol, decorators: readonly PropertyDecorator[]): void {
  for (const decorator of decorators) decorator(target, key);
}

/** A finite number between two bounds. */
export function Between(min: number, max: number): PropertyDecorator {
  return (target, key) =>
    decorate(target, key, [IsNumber({ allowNaN: false, allowInfinity: false }), Min(min), Max(max)]);
}

/** A whole number between two bounds. */
export function Whole(min: number, max: number): PropertyDecorator {
  return (target, key) => decorate(target, key, [IsInt(), Min(min), Max(max)]);
}

/** A value that passes a test, which may look at the whole of what it is part of; and what is said of one that does not. */
export function Such(test: (value: unknown, whole: object) => boolean, words: string): PropertyDecorator {
  const validate = (value: unknown, at?: { object: object }) => test(value, at!.object);
  return ValidateBy({ name: words, validator: { validate, defaultMessage: () => words } });
}

/** A part with a schema of its own. */
export function Part(type: () => Schema): PropertyDecorator {
  return (target, key) => {
    note(target, key, type);
    decorate(target, key, [IsObject(), ValidateNested(), Type(type)]);
  };
}

/** A list of parts with a schema of their own, no more than `most`. */
export function Parts(type: () => Schema, most: number): PropertyDecorator {
  return (target, key) => {
    note(target, key, type);
    const each = { each: true };
    decorate(target, key, [IsArray(), ArrayMaxSize(most), IsObject(each), ValidateNested(each), Type(type)]);
  };
}

export type Checked<T> = { value: T } | { problem: string };

/**
 * Reads one part of a document: what it holds beyond its schema is left out.
 * @param path where it lies, for the message: "tracks 1, patterns 2"
 * @returns the part, or the first thing that is wrong with it: "At tracks 1, patterns 1, hits 3, velocity: must not be greater
 * than 1."
 */
export function check<T extends object>(schema: Schema<T>, plain: unknown, path: string): Checked<T> {
  if (!isPlain(plain)) return { problem: `At ${path}: it is not an object.` }; // prettier-ignore
  try {
    if (fits(schema, plain)) return { value: plain as T };
    const instance = plainToInstance(schema, plain);
    const problem = firstProblem(validateSync(instance, STRICT), path);
    return problem ? { problem } : { value: JSON.parse(JSON.stringify(instance)) as T };
  } catch {
    return { problem: `At ${path || 'the top'}: its parts are nested in a way that no set is.` };
  }
}

const STRICT = {
  whitelist: true,
  forbidUnknownValues: true,
  stopAtFirstError: true,
  validationError: { target: false },
};

function firstProblem(errors: readonly ValidationError[], path: string): string | null {
  const error = errors[0];
  if (!error) return null;
  const step = /^\d+$/.test(error.property) ? ` ${Number(error.property) + 1}` : `${path ? ', ' : ''}${error.property}`;
  const here = path + step;
  if (error.children?.length) return firstProblem(error.children, here);
  const [message = 'it is not valid'] = Object.values(error.constraints ?? {});
  const told = message.replace(`value in ${error.property} `, '').replace(`${error.property} `, '');
  return `At ${here}: ${inPlainWords(told)}${found(error.value)}.`;
}

/** Values that are told of a list of all that may be. */
const TOLD_VALUES = 8;
/** Letters of what was found that are told. */
const TOLD_LETTERS = 40;

/** What the package says is for programmers, and lists of what may be are too long to be read. */
function inPlainWords(message: string): string {
  const [rule, list] = message.split(' of the following values: ');
  if (list !== undefined) {
    const values = list.split(', ');
    const more = values.length - TOLD_VALUES;
    return `${rule} of ${values.slice(0, TOLD_VALUES).join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
  }
  return message
    .replace('a number conforming to the specified constraints', 'a number')
    .replace('an integer number', 'a whole number');
}

/** What is there instead, where that can be told in short. */
function found(value: unknown): string {
  if (typeof value !== 'string' && typeof value !== 'number') return '';
  const words = typeof value === 'string' ? `“${value}”` : String(value);
  return words.length > TOLD_LETTERS ? '' : `, and is ${words}`;
}

// --- the fast way -------------------------------------------------------------------------------------------
// validateSync takes some 50 µs for each hit, seconds for a large set. What a schema's decorators say is looked up once and
// run straight; only what does not fit goes to validateSync, for its message. The decorators stay the one truth.

interface Rule {
  validate: (value: unknown, args: ValidationArguments) => boolean;
  constraints: unknown[];
  each: boolean;
}

interface Property {
  /** Whether the value is looked at at all: @IsOptional, @ValidateIf. */
  applies: ((object: object, value: unknown) => boolean)[];
  rules: Rule[];
  part: (() => Schema) | undefined;
}

const compiled = new WeakMap<Schema, Map<string, Property>>();

function compile(schema: Schema): Map<string, Property> {
  let properties = compiled.get(schema);
  if (properties) return properties;
  properties = new Map();
  const storage = getMetadataStorage();
  for (const metadata of storage.getTargetValidationMetadatas(schema, '', false, false)) {
    let property = properties.get(metadata.propertyName);
    if (!property) properties.set(metadata.propertyName, (property = { applies: [], rules: [], part: partOf(schema, metadata.propertyName) })); // prettier-ignore
    if (metadata.type === 'conditionalValidation') {
      property.applies.push(metadata.constraints[0] as Property['applies'][number]);
    } else if (metadata.constraintCls) {
      for (const { instance } of storage.getTargetValidatorConstraints(metadata.constraintCls)) {
        const validate = (value: unknown, args: ValidationArguments) => instance.validate(value, args) === true;
        property.rules.push({ validate, constraints: metadata.constraints ?? [], each: metadata.each });
      }
    }
  }
  compiled.set(schema, properties);
  return properties;
}

function partOf(schema: Schema, key: string): (() => Schema) | undefined {
  for (let type: unknown = schema; typeof type === 'function'; type = Object.getPrototypeOf(type)) {
    const part = parts.get(type)?.get(key);
    if (part) return part;
  }
  return undefined;
}

/** Whether a part surely is what its schema says, and holds nothing else. */
function fits(schema: Schema, plain: Record<string, unknown>): boolean {
  const properties = compile(schema);
  for (const key in plain) if (!properties.has(key)) return false;
  const args: ValidationArguments = { value: undefined, constraints: [], object: plain, property: '', targetName: '' };
  for (const [key, { applies, rules, part }] of properties) {
    const value = plain[key];
    if (!applies.every((applied) => applied(plain, value))) continue;
    args.value = value;
    args.property = key;
    for (const rule of rules) if (!follows(rule, args)) return false;
    if (part && !fitsPart(part(), value)) return false;
  }
  return true;
}

function follows({ validate, constraints, each }: Rule, args: ValidationArguments): boolean {
  args.constraints = constraints;
  const { value } = args;
  if (!each) return validate(value, args);
  return Array.isArray(value) && value.every((one) => validate(one, args));
}

function fitsPart(schema: Schema, value: unknown): boolean {
  if (Array.isArray(value)) return value.every((one) => fits(schema, one as Record<string, unknown>));
  return fits(schema, value as Record<string, unknown>);
}
