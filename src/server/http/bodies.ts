import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
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
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { ANALYSIS_NAMES, MATTE_METHODS, type AnalysisName } from '@/contract/analyses';
import { DELETED_KINDS, type DeletedKind } from '@/contract/disk';
import { BED_NAMES, type BedName } from '@/core/audio/bed';
import { LAYOUT_KINDS, type LayoutKind } from '@/core/layout/built-in';
import { FORMATS, QUALITIES, type Format, type Quality } from '@/core/project/export-formats';
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

/** May be left out; `null` is a value like any other, and refused unless it is allowed. */
const MayLack = () => ValidateIf((_, value) => value !== undefined);

/** An object of a class; a list of such objects is none. */
const Nested =
  (type: () => new () => object): PropertyDecorator =>
  (target, key) => {
    for (const decorate of [IsObject(), ValidateNested(), Type(type)])
      decorate(target, key as string);
  };

export class FrameRateBody {
  @IsInt() @Min(1) @Max(240000) num!: number;
  @IsInt() @Min(1) @Max(1001) den!: number;
}

export class NewProjectBody {
  @IsString() @MinLength(1) @MaxLength(200) name!: string;
  @IsInt() @Min(LEAST_SIDE) @Max(MOST_SIDE) width!: number;
  @IsInt() @Min(LEAST_SIDE) @Max(MOST_SIDE) height!: number;
  @Nested(() => FrameRateBody) frameRate!: FrameRateBody;
  @MayLack() @IsIn(TARGET_IDS) target?: TargetId;
}

export class ChangeProjectBody {
  @MayLack() @IsString() @MinLength(1) @MaxLength(200) name?: string;
  @MayLack() @IsBoolean() deleted?: boolean;
}

export class ChangeFootageBody {
  @MayLack() @IsString() @MinLength(1) @MaxLength(200) name?: string;
  @MayLack() @IsIn(ROLES) role?: Role;
  @MayLack() @IsBoolean() deleted?: boolean;
  @MayLack()
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
  @Nested(() => FrameRateBody) frameRate!: FrameRateBody;
  @MayLack() @IsIn(FORMATS) format?: Format;
  @IsIn(QUALITIES) quality!: Quality;
  @IsOptional() @IsNumber() @Min(0.1) @Max(200) bitRate?: number | null;
  @IsOptional() @Nested(() => RangeBody) range!: RangeBody | null;
  @MayLack() @IsBoolean() calm?: boolean;
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
  @IsOptional() @Nested(() => AreaBody) area!: AreaBody | null;
}

class TakeSetupBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(4)
  @ValidateNested({ each: true })
  @Type(() => TrackBody)
  tracks!: TrackBody[];
  @IsOptional() @Nested(() => AreaBody) area!: AreaBody | null;
  @IsNumber() @Min(-96) @Max(24) gain!: number;
  @Nested(() => CameraLookBody) camera!: CameraLookBody;
  @IsOptional() @IsNumber() @Min(0.2) @Max(3600) hold!: number | null;
  @IsIn(LAYOUT_KINDS) layout!: LayoutKind;
}

export class BeginTakeBody {
  @Matches(/^[\w-]{10,40}$/) id!: string;
  @IsOptional() @IsString() @MaxLength(64) stepId!: string | null;
  @IsIn(TAKE_KINDS) kind!: TakeKind;
  @Nested(() => TakeSetupBody) setup!: TakeSetupBody;
}

export class CloseTakeBody {
  @IsIn(END_REASONS) reason!: EndReason;
}

export class ChangeTakeBody {
  @IsBoolean() discarded!: boolean;
}

/** A preset, all but its value, which the schema of its kind checks. */
export class PresetBody {
  @IsString() @MinLength(1) @MaxLength(100) name!: string;
  @IsObject() value!: object;
}

export class RenameBody {
  @IsString() @MinLength(1) @MaxLength(100) name!: string;
}

/** A change to a project, all but the change itself, which `core` reads. */
export class SaveChangeBody {
  @IsInt() @Min(1) base!: number;
  @Matches(/^[\w-]{10,40}$/) key!: string;
}

class FollowBody {
  @IsNumber() x!: number;
  @IsNumber() y!: number;
  @IsNumber() @Min(1) @Max(100_000) width!: number;
  @IsNumber() @Min(1) @Max(100_000) height!: number;
  @IsNumber() @Min(0) ms!: number;
  @IsNumber() @Min(0) from!: number;
  @IsNumber() @Min(0) to!: number;
}

class AgainBody {
  @IsNumber() x!: number;
  @IsNumber() y!: number;
  @IsNumber() @Min(0) ms!: number;
  @IsNumber() @Min(0) from!: number;
  @IsNumber() @Min(0) to!: number;
}

class ShotBody {
  @IsInt() @Min(0) start!: number;
  @IsInt() @Min(1) end!: number;
}

class MatteBody {
  @IsIn(MATTE_METHODS) method!: (typeof MATTE_METHODS)[number];
  @IsOptional() @Nested(() => ShotBody) shot!: ShotBody | null;
}

export class AnalysisBody {
  @IsIn(ANALYSIS_NAMES) kind!: AnalysisName;
  @MayLack() @Nested(() => FollowBody) follow?: FollowBody;
  @MayLack() @Nested(() => AgainBody) again?: AgainBody;
  @MayLack()
  @IsArray()
  @ArrayMaxSize(100)
  @IsString({ each: true })
  @MaxLength(80, { each: true })
  words?: string[];
  @MayLack() @IsString() @MaxLength(64) alignWith?: string;
  @MayLack() @Nested(() => MatteBody) matte?: MatteBody;
}

export class LastGoodBody {
  @IsInt() @Min(1) revision!: number;
}

export class BringBackBody {
  @IsIn(DELETED_KINDS) kind!: DeletedKind;
  @IsString() @MaxLength(64) id!: string;
}
