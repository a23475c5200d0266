import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  Allow,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { ROLES, type Role } from '@/core/project/sources';
import { QUALITIES, type Quality } from '../export/settings';

export class FrameRateBody {
  @IsInt() @Min(1) @Max(240000) num!: number;
  @IsInt() @Min(1) @Max(1001) den!: number;
}

export class NewProjectBody {
  @IsString() @MinLength(1) @MaxLength(200) name!: string;
  @IsInt() @Min(16) @Max(7680) width!: number;
  @IsInt() @Min(16) @Max(7680) height!: number;
  @ValidateNested() @Type(() => FrameRateBody) frameRate!: FrameRateBody;
}

export class ChangeProjectBody {
  @IsOptional() @IsString() @MinLength(1) @MaxLength(200) name?: string;
  @IsOptional() @IsBoolean() deleted?: boolean;
}

export class HistoryBody {
  @Allow() done!: never[];
  @Allow() undone!: never[];
}

export class SaveBody {
  @IsInt() @Min(1) revision!: number;
  @IsObject() project!: object;
  @IsObject() @ValidateNested() @Type(() => HistoryBody) history!: HistoryBody;
}

export class ChangeFootageBody {
  @IsOptional() @IsString() @MinLength(1) @MaxLength(200) name?: string;
  @IsOptional() @IsIn(ROLES) role?: Role;
  @IsOptional() @IsBoolean() deleted?: boolean;
}

class RangeBody {
  @IsNumber() @Min(0) start!: number;
  @IsNumber() @Min(0) end!: number;
}

export class ExportBody {
  @IsInt() @Min(16) @Max(7680) width!: number;
  @IsInt() @Min(16) @Max(7680) height!: number;
  @ValidateNested() @Type(() => FrameRateBody) frameRate!: FrameRateBody;
  @IsIn(QUALITIES) quality!: Quality;
  @IsOptional() @ValidateNested() @Type(() => RangeBody) range!: RangeBody | null;
}
