import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  Allow,
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { BED_NAMES, type BedName } from '@/core/audio/bed';
import { LAYOUT_KINDS, type LayoutKind } from '@/core/project/model';
import { ROLES, type Role } from '@/core/project/sources';
import { TARGET_IDS, type TargetId } from '@/core/project/targets';
import { LEAST_SIDE, MOST_SIDE } from '@/core/scale/export-size';
import {
  END_REASONS,
  TAKE_KINDS,
  TRACK_NAMES,
  type EndReason,
  type TakeKind,
  type TrackName,
} from '@/core/take/take';
import { FORMATS, QUALITIES, type Format, type Quality } from '@/core/project/export-formats';

export class FrameRateBody {
  @IsInt() @Min(1) @Max(240000) num!: number;
  @IsInt() @Min(1) @Max(1001) den!: number;
}

export class NewProjectBody {
  @IsString() @MinLength(1) @MaxLength(200) name!: string;
  @IsInt() @Min(LEAST_SIDE) @Max(MOST_SIDE) width!: number;
  @IsInt() @Min(LEAST_SIDE) @Max(MOST_SIDE) height!: number;
  @ValidateNested() @Type(() => FrameRateBody) frameRate!: FrameRateBody;
  @IsOptional() @IsIn(TARGET_IDS) target?: TargetId;
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
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(40, { each: true })
  tags?: string[];
  @IsOptional() @IsInt() @Min(0) inPoint?: number | null;
  @IsOptional() @IsInt() @Min(0) outPoint?: number | null;
}

export class BringFootageBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @IsString({ each: true })
  @MaxLength(64, { each: true })
  footageIds!: string[];
}

export class BedBody {
  @IsIn(BED_NAMES) name!: BedName;
}

class RangeBody {
  @IsNumber() @Min(0) start!: number;
  @IsNumber() @Min(0) end!: number;
}

export class ExportBody {
  @IsInt() @Min(LEAST_SIDE) @Max(MOST_SIDE) width!: number;
  @IsInt() @Min(LEAST_SIDE) @Max(MOST_SIDE) height!: number;
  @ValidateNested() @Type(() => FrameRateBody) frameRate!: FrameRateBody;
  @IsOptional() @IsIn(FORMATS) format?: Format;
  @IsIn(QUALITIES) quality!: Quality;
  @IsOptional() @IsNumber() @Min(0.1) @Max(200) bitRate?: number | null;
  @IsOptional() @ValidateNested() @Type(() => RangeBody) range!: RangeBody | null;
  @IsOptional() @IsBoolean() calm?: boolean;
}

class AreaBody {
  @IsNumber() @Min(0) x!: number;
  @IsNumber() @Min(0) y!: number;
  @IsNumber() @Min(16) width!: number;
  @IsNumber() @Min(16) height!: number;
}

class TrackBody {
  @IsIn(TRACK_NAMES) name!: TrackName;
  @IsIn(['video', 'audio']) type!: 'video' | 'audio';
  @IsString() @MaxLength(200) label!: string;
  @IsInt() @Min(0) @Max(8192) width!: number;
  @IsInt() @Min(0) @Max(8192) height!: number;
  @IsNumber() @Min(0) @Max(240) frameRate!: number;
  @IsInt() @Min(0) @Max(384000) sampleRate!: number;
  @IsInt() @Min(0) @Max(8) channels!: number;
}

class CameraLookBody {
  @IsBoolean() mirror!: boolean;
  @IsNumber() @Min(-1) @Max(1) brightness!: number;
  @IsNumber() @Min(0.25) @Max(4) contrast!: number;
  @IsOptional() @ValidateNested() @Type(() => AreaBody) area!: AreaBody | null;
}

class TakeSetupBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(4)
  @ValidateNested({ each: true })
  @Type(() => TrackBody)
  tracks!: TrackBody[];
  @IsOptional() @ValidateNested() @Type(() => AreaBody) area!: AreaBody | null;
  @IsNumber() @Min(-96) @Max(24) gain!: number;
  @ValidateNested() @Type(() => CameraLookBody) camera!: CameraLookBody;
  @IsOptional() @IsNumber() @Min(0.2) @Max(3600) hold!: number | null;
  @IsIn(LAYOUT_KINDS) layout!: LayoutKind;
}

export class BeginTakeBody {
  @Matches(/^[\w-]{10,40}$/) id!: string;
  @IsOptional() @IsString() @MaxLength(64) stepId!: string | null;
  @IsIn(TAKE_KINDS) kind!: TakeKind;
  @ValidateNested() @Type(() => TakeSetupBody) setup!: TakeSetupBody;
}

export class CloseTakeBody {
  @IsIn(END_REASONS) reason!: EndReason;
}

export class ChangeTakeBody {
  @IsBoolean() discarded!: boolean;
}

export class AreaPresetBody {
  @IsString() @MinLength(1) @MaxLength(100) name!: string;
  @ValidateNested() @Type(() => AreaBody) value!: AreaBody;
}

export class RenameBody {
  @IsString() @MinLength(1) @MaxLength(100) name!: string;
}
