<?php

declare(strict_types=1);

namespace Cartella\Core\Fields;

/** What a field holds. The first four are those that a production can add for itself. */
enum FieldType: string
{
    case Text = 'text';
    case Number = 'number';
    case Choice = 'choice';
    case YesNo = 'yes_no';
    /** Text of several lines. */
    case Lines = 'lines';
    case Status = 'status';
    /** Part of the take's slate: scene, setup, number, series. */
    case Slate = 'slate';
    /** Letters of devices. */
    case Devices = 'devices';

    /** @return list<self> */
    public static function ofProductions(): array
    {
        return [self::Text, self::Number, self::Choice, self::YesNo];
    }
}
