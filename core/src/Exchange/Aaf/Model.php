<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

/**
 * Classes, properties and definitions of the AAF object specification (AMWA, version 1.1) that are written or read, by their
 * identifiers.
 *
 * @internal
 */
final class Model
{
    public const ROOT = 'b3b398a5-1c90-11d4-8053-080036210804';

    /** Class by name, its number in the row of built-in classes and the class above it. */
    public const CLASSES = [
        'InterchangeObject' => [0x0100, 'InterchangeObject', false],
        'Component' => [0x0200, 'InterchangeObject', false],
        'Segment' => [0x0300, 'Component', false],
        'EssenceGroup' => [0x0500, 'Segment', true],
        'Event' => [0x0600, 'Segment', false],
        'CommentMarker' => [0x0800, 'Event', true],
        'Filler' => [0x0900, 'Segment', true],
        'OperationGroup' => [0x0a00, 'Segment', true],
        'NestedScope' => [0x0b00, 'Segment', true],
        'ScopeReference' => [0x0d00, 'Segment', true],
        'Selector' => [0x0e00, 'Segment', true],
        'Sequence' => [0x0f00, 'Segment', true],
        'SourceReference' => [0x1000, 'Segment', false],
        'SourceClip' => [0x1100, 'SourceReference', true],
        'Timecode' => [0x1400, 'Segment', true],
        'Transition' => [0x1700, 'Component', true],
        'ContentStorage' => [0x1800, 'InterchangeObject', true],
        'DefinitionObject' => [0x1a00, 'InterchangeObject', false],
        'DataDefinition' => [0x1b00, 'DefinitionObject', true],
        'OperationDefinition' => [0x1c00, 'DefinitionObject', true],
        'ParameterDefinition' => [0x1d00, 'DefinitionObject', true],
        'ContainerDefinition' => [0x2000, 'DefinitionObject', true],
        'Dictionary' => [0x2200, 'InterchangeObject', true],
        'EssenceDescriptor' => [0x2400, 'InterchangeObject', false],
        'FileDescriptor' => [0x2500, 'EssenceDescriptor', false],
        'DigitalImageDescriptor' => [0x2700, 'FileDescriptor', false],
        'CDCIDescriptor' => [0x2800, 'DigitalImageDescriptor', true],
        'TapeDescriptor' => [0x2e00, 'EssenceDescriptor', true],
        'Header' => [0x2f00, 'InterchangeObject', true],
        'Identification' => [0x3000, 'InterchangeObject', true],
        'Locator' => [0x3100, 'InterchangeObject', false],
        'NetworkLocator' => [0x3200, 'Locator', true],
        'Mob' => [0x3400, 'InterchangeObject', false],
        'CompositionMob' => [0x3500, 'Mob', true],
        'MasterMob' => [0x3600, 'Mob', true],
        'SourceMob' => [0x3700, 'Mob', true],
        'MobSlot' => [0x3800, 'InterchangeObject', false],
        'EventMobSlot' => [0x3900, 'MobSlot', true],
        'StaticMobSlot' => [0x3a00, 'MobSlot', true],
        'TimelineMobSlot' => [0x3b00, 'MobSlot', true],
        'Parameter' => [0x3c00, 'InterchangeObject', false],
        'ConstantValue' => [0x3d00, 'Parameter', true],
        'VaryingValue' => [0x3e00, 'Parameter', true],
        'TaggedValue' => [0x3f00, 'InterchangeObject', true],
        'DescriptiveMarker' => [0x4100, 'CommentMarker', true],
        'SoundDescriptor' => [0x4200, 'FileDescriptor', true],
        'PCMDescriptor' => [0x4800, 'SoundDescriptor', true],
    ];

    /** Those of the definitions themselves. */
    public const META = [
        'ClassDefinition' => '0d010101-0201-0000-060e-2b3402060101',
        'MetaDictionary' => '0d010101-0225-0000-060e-2b3402060101',
    ];

    /** Properties that are written or read: their number and the name that the specification gives them. */
    public const META_DICTIONARY = 0x0001;

    public const HEADER = 0x0002;

    public const CLASS_DEFINITIONS = 0x0003;

    public const META_IDENTIFICATION = 0x0005;

    public const META_NAME = 0x0006;

    public const PARENT_CLASS = 0x0008;

    public const IS_CONCRETE = 0x000a;

    public const DATA_DEFINITION = 0x0201;

    public const LENGTH = 0x0202;

    public const COMPONENT_COMMENTS = 0x0204;

    public const CHOICES = 0x0501;

    public const POSITION = 0x0601;

    public const COMMENT = 0x0602;

    public const OPERATION = 0x0b01;

    public const INPUT_SEGMENTS = 0x0b02;

    public const PARAMETERS = 0x0b03;

    public const SCOPE_SLOTS = 0x0c01;

    public const SELECTED = 0x0f01;

    public const COMPONENTS = 0x1001;

    public const SOURCE_ID = 0x1101;

    public const SOURCE_SLOT = 0x1102;

    public const START_TIME = 0x1201;

    public const TIMECODE_START = 0x1501;

    public const TIMECODE_FPS = 0x1502;

    public const TIMECODE_DROP = 0x1503;

    public const TRANSITION_OPERATION = 0x1801;

    public const CUT_POINT = 0x1802;

    public const MOBS = 0x1901;

    public const DEFINITION_ID = 0x1b01;

    public const DEFINITION_NAME = 0x1b02;

    public const OPERATION_DATA = 0x1e01;

    public const IS_TIME_WARP = 0x1e02;

    public const NUMBER_INPUTS = 0x1e07;

    public const OPERATION_DEFINITIONS = 0x2603;

    public const DATA_DEFINITIONS = 0x2605;

    public const CONTAINER_DEFINITIONS = 0x2608;

    public const LOCATOR = 0x2f01;

    public const SAMPLE_RATE = 0x3001;

    public const FILE_LENGTH = 0x3002;

    public const CONTAINER_FORMAT = 0x3004;

    public const STORED_HEIGHT = 0x3202;

    public const STORED_WIDTH = 0x3203;

    public const QUANTIZATION = 0x3d01;

    public const SOUND_RATE = 0x3d03;

    public const CHANNELS = 0x3d07;

    public const BYTE_ORDER = 0x3b01;

    public const LAST_MODIFIED = 0x3b02;

    public const CONTENT = 0x3b03;

    public const DICTIONARY = 0x3b04;

    public const VERSION = 0x3b05;

    public const IDENTIFICATIONS = 0x3b06;

    public const MODEL_VERSION = 0x3b07;

    public const COMPANY = 0x3c01;

    public const PRODUCT = 0x3c02;

    public const PRODUCT_VERSION = 0x3c04;

    public const PRODUCT_ID = 0x3c05;

    public const DATE = 0x3c06;

    public const GENERATION = 0x3c09;

    public const URL = 0x4001;

    public const MOB_ID = 0x4401;

    public const MOB_NAME = 0x4402;

    public const SLOTS = 0x4403;

    public const MOB_MODIFIED = 0x4404;

    public const MOB_CREATED = 0x4405;

    public const MOB_COMMENTS = 0x4406;

    public const DESCRIPTION = 0x4701;

    public const SLOT_ID = 0x4801;

    public const SLOT_NAME = 0x4802;

    public const SEGMENT = 0x4803;

    public const TRACK_NUMBER = 0x4804;

    public const EVENT_RATE = 0x4901;

    public const EDIT_RATE = 0x4b01;

    public const ORIGIN = 0x4b02;

    public const PARAMETER_DEFINITION = 0x4c01;

    public const PARAMETER_VALUE = 0x4d01;

    public const TAG_NAME = 0x5001;

    public const TAG_VALUE = 0x5003;

    /** Names of properties that hold objects: storages are called by them. */
    public const NAMES = [
        self::META_DICTIONARY => 'MetaDictionary',
        self::HEADER => 'Header',
        self::CLASS_DEFINITIONS => 'ClassDefinitions',
        self::COMPONENT_COMMENTS => 'UserComments',
        self::INPUT_SEGMENTS => 'InputSegments',
        self::PARAMETERS => 'Parameters',
        self::COMPONENTS => 'Components',
        self::TRANSITION_OPERATION => 'OperationGroup',
        self::MOBS => 'Mobs',
        self::OPERATION_DEFINITIONS => 'OperationDefinitions',
        self::DATA_DEFINITIONS => 'DataDefinitions',
        self::CONTAINER_DEFINITIONS => 'ContainerDefinitions',
        self::LOCATOR => 'Locator',
        self::CONTENT => 'Content',
        self::DICTIONARY => 'Dictionary',
        self::IDENTIFICATIONS => 'IdentificationList',
        self::SLOTS => 'Slots',
        self::MOB_COMMENTS => 'UserComments',
        self::DESCRIPTION => 'EssenceDescription',
        self::SEGMENT => 'Segment',
    ];

    /** Where weak references lead, as ways of properties from the root; in the order of their tags. */
    public const TO_CLASS = [self::META_DICTIONARY, self::CLASS_DEFINITIONS];

    public const TO_DATA = [self::HEADER, self::DICTIONARY, self::DATA_DEFINITIONS];

    public const TO_OPERATION = [self::HEADER, self::DICTIONARY, self::OPERATION_DEFINITIONS];

    public const TO_CONTAINER = [self::HEADER, self::DICTIONARY, self::CONTAINER_DEFINITIONS];

    public const WAYS = [self::TO_CLASS, self::TO_DATA, self::TO_OPERATION, self::TO_CONTAINER];

    public const PICTURE = '01030202-0100-0000-060e-2b3404010101';

    public const SOUND = '01030202-0200-0000-060e-2b3404010101';

    public const TIMECODE = '01030201-0100-0000-060e-2b3404010101';

    public const MARKS = '01030201-1000-0000-060e-2b3404010101';

    /** Older identifiers of the same, which many files have. */
    public const KINDS = [
        self::PICTURE => 'picture',
        '6f3c8ce1-6cef-11d2-807d-006008143e6f' => 'picture',
        self::SOUND => 'sound',
        '78e1ebe1-6cef-11d2-807d-006008143e6f' => 'sound',
        self::TIMECODE => 'timecode',
        '7f275e81-77e5-11d2-807f-006008143e6f' => 'timecode',
        self::MARKS => 'marks',
    ];

    public const EXTERNAL = '4313b572-d8ba-11d2-809b-006008143e6f';

    public const DISSOLVE = '0c3bea40-fc05-11d2-8a29-0050040ef7d2';

    public const SOUND_DISSOLVE = '0c3bea42-fc05-11d2-8a29-0050040ef7d2';

    public const WIPE = '0c3bea44-fc05-11d2-8a29-0050040ef7d2';

    public const SPEED = '9d2ea894-0968-11d3-8a38-0050040ef7d2';

    public const SPEED_RATIO = '72559a80-24d7-11d3-8a50-0050040ef7d2';

    public const RATIONAL_TYPE = '03010100-0000-0000-060e-2b3401040101';

    public const STRING_TYPE = '01100200-0000-0000-060e-2b3401040101';

    public static function classId(string $name): string
    {
        return self::META[$name] ?? sprintf('0d010101-0101-%04x-060e-2b3402060101', self::CLASSES[$name][0]);
    }

    /** The name of a class; null for one that is not known. */
    public static function className(string $id): ?string
    {
        static $names = null;
        if ($names === null) {
            $names = array_flip(self::META);
            foreach (array_keys(self::CLASSES) as $name) {
                $names[self::classId($name)] = $name;
            }
        }

        return $names[$id] ?? null;
    }
}
