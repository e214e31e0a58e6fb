<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One file of an upload, and how much of it has arrived; bytes.
 *
 * @property int $id
 * @property int $upload_id
 * @property int $number
 * @property string $path
 * @property int $size_bytes
 * @property int $received_bytes
 */
class UploadFile extends Model
{
    public $timestamps = false;

    protected $guarded = [];
}
