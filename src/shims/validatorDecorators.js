// The decorators of class-validator that the document's schemas use. Its own list brings all hundred of them, and with them the
// package `validator` and tables of phone numbers: 190 KB of the first load. Add here what a schema begins to use.
export { ArrayMaxSize } from 'class-validator/esm5/decorator/array/ArrayMaxSize';
export { ArrayMinSize } from 'class-validator/esm5/decorator/array/ArrayMinSize';
export { ArrayUnique } from 'class-validator/esm5/decorator/array/ArrayUnique';
export { Equals } from 'class-validator/esm5/decorator/common/Equals';
export { IsIn } from 'class-validator/esm5/decorator/common/IsIn';
export { IsOptional } from 'class-validator/esm5/decorator/common/IsOptional';
export { ValidateBy } from 'class-validator/esm5/decorator/common/ValidateBy';
export { ValidateIf } from 'class-validator/esm5/decorator/common/ValidateIf';
export { ValidateNested } from 'class-validator/esm5/decorator/common/ValidateNested';
export { Max } from 'class-validator/esm5/decorator/number/Max';
export { Min } from 'class-validator/esm5/decorator/number/Min';
export { MaxLength } from 'class-validator/esm5/decorator/string/MaxLength';
export { IsArray } from 'class-validator/esm5/decorator/typechecker/IsArray';
export { IsBoolean } from 'class-validator/esm5/decorator/typechecker/IsBoolean';
export { IsInt } from 'class-validator/esm5/decorator/typechecker/IsInt';
export { IsNumber } from 'class-validator/esm5/decorator/typechecker/IsNumber';
export { IsObject } from 'class-validator/esm5/decorator/typechecker/IsObject';
export { IsString } from 'class-validator/esm5/decorator/typechecker/IsString';
