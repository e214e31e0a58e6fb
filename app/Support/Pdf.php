<?php

declare(strict_types=1);

namespace App\Support;

use Dompdf\Dompdf;
use Dompdf\Options;

/** Makes a PDF of one of the views, on A4. Nothing is fetched and nothing runs: pages carry their pictures themselves. */
final class Pdf
{
    /**
     * @param  array<string, mixed>  $data
     * @param  'portrait'|'landscape'  $orientation
     */
    public static function of(string $view, array $data, string $orientation): string
    {
        $options = new Options();
        $options
            ->setIsRemoteEnabled(false)
            ->setIsPhpEnabled(false)
            ->setIsJavascriptEnabled(false)
            ->setChroot(storage_path('app'))
            ->setDefaultFont('DejaVu Sans');
        $options->setFontCache(storage_path('app'))->setTempDir(sys_get_temp_dir());
        $pdf = new Dompdf($options);
        $pdf->setPaper('A4', $orientation);
        $pdf->loadHtml(view($view, $data)->render());
        $pdf->render();

        return (string) $pdf->output();
    }
}
