/** DNS records and tokens as they are entered. */
import {
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
  Validate,
  ValidatorConstraint,
  type ValidationArguments,
  type ValidatorConstraintInterface,
} from './validation';
import { RECORD_TYPES } from '#core/facts/brief';
import { recordFault } from './record-value';

@ValidatorConstraint({ name: 'recordValue' })
class FitsItsType implements ValidatorConstraintInterface {
  validate(value: unknown, args: ValidationArguments): boolean {
    return (
      typeof value === 'string' && recordFault(String((args.object as RecordDto).type), value) === undefined
    );
  }
  defaultMessage(args: ValidationArguments): string {
    return `value ${recordFault(String((args.object as RecordDto).type), String(args.value)) ?? 'does not fit the type'}`;
  }
}

export class RecordDto {
  @IsString() @Length(1, 254) name!: string;
  @IsIn(RECORD_TYPES) type!: string;
  @IsString() @Length(1, 4096) @Validate(FitsItsType) value!: string;
  @IsOptional() @IsInt() @Min(0) @Max(2147483647) ttl?: number;
}

export class TokenDto {
  @IsString() @Length(1, 200) kind!: string;
  @IsString() @Length(1, 500) value!: string;
  @IsIn(['meta', 'txt', 'file']) place!: 'meta' | 'txt' | 'file';
}
