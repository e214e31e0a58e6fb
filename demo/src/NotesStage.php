<?php

declare(strict_types=1);

namespace Cartella\Demo;

use OpenSpout\Common\Entity\Row;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

/**
 * What others wrote of day 1, in three layouts and with the dirt that such tables have, and the script: `notes/` beside
 * the cards. Made by hand from the scenario, so that a person can try the imports on it.
 */
final class NotesStage
{
    public static function write(string $folder): void
    {
        mkdir($folder, 0777, true);
        self::scriptNotes($folder . '/script-notes-day-1.xlsx');
        file_put_contents($folder . '/slate-log-day-1.tsv', self::slateLog());
        file_put_contents($folder . '/camera-report-B.csv', self::cameraReport());
        file_put_contents($folder . '/low-water.fountain', self::script());
    }

    /** A title, a heading in two rows, scene and setup written once, blank rows, dates day first, marks beside takes. */
    private static function scriptNotes(string $path): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        foreach (
            [
                ['LOW WATER — continuity'],
                ['', 'SLATE', '', '', 'PICTURE', '', 'REMARKS'],
                ['Date', 'Scene', 'Setup', 'Take', 'Size', 'Action', 'Remarks'],
                ['05.10.2026', '3', '3', '1', 'WS', 'Mara unlocks the wheel', 'Key sticks, restart'],
                ['', '', '', 'T2 (circled)', 'WS', '', 'Good, use from the second turn'],
                [],
                ['05.10.26', '3', '3 A', '1/2', 'MS', 'Mara turns, drops the ledger', ''],
                ['', '', '', '3 (circled)', 'MS', '', 'Ledger lands face down'],
                ['', '3', 'B', '1 (MOS)', 'CU', 'Ledger on the floor, insert', ''],
                ['', '', '', '2 (MOS, circled)', 'CU', '', ''],
                [],
                ['5.10.2026', '7', '', '1', 'Wide', 'Quill measures the gate', 'Gull in shot'],
                ['', '', '', '2 (tail slate, circled)', 'Wide', '', ''],
                ['', '7', 'A', '1', 'OTS', 'Over Quill to the far bank', 'B camera did not roll'],
                ['', '', '', '2*', 'OTS', '', ''],
                ['', '', '', '3', 'OTS', '', 'Half a take, light gone'],
                ['Date', 'Scene', 'Setup', 'Take', 'Size', 'Action', 'Remarks'],
                ['05.10.2026', '12', '12', '1', 'WS', 'Quill reads the deed aloud', 'Line fluffed'],
                ['', '', '', '2 (circled)', 'WS', '', 'Hold on Mara'],
                ['', '12', '12 A', '1–2', 'CU', 'Mara listening', ''],
                ['', '', '12I', '1', 'CU', '', 'never shot'],
                [],
                ['', '', '', '', '', 'wrap 16:52', ''],
            ]
            as $cells
        ) {
            $writer->addRow(self::row($cells));
        }
        $writer->close();
    }

    /** UTF-16, seconds of the day instead of timecode, no scene. */
    private static function slateLog(): string
    {
        $lines = ["Slate\tStart\tMark\tComment"];
        foreach (Scenario::TAKES as $take) {
            if ($take['take'] !== null) {
                $mark = match (true) {
                    str_contains((string) $take['mark'], 'circled') => 'good',
                    $take['mark'] === 'ng' => 'NG',
                    default => '',
                };
                // At 7/1 the slate's own log holds on to another mark than the recorder.
                $lines[] = sprintf(
                    "%s-%d\t%d\t%s\t%s",
                    $take['setup'],
                    $take['take'],
                    Scenario::seconds($take['at']) + 2,
                    $take['setup'] . $take['take'] === '71' ? 'hold' : $mark,
                    $take['setup'] === '12A' ? 'water audible' : '',
                );
            }
        }
        $lines[] = sprintf("\t%d\t\twind over the end", Scenario::seconds('13:17:30') + 10);

        return "\xFF\xFE" . mb_convert_encoding(implode("\r\n", $lines) . "\r\n", 'UTF-16LE', 'UTF-8');
    }

    /** Windows-1252, semicolons, clips instead of slates, decimal commas. */
    private static function cameraReport(): string
    {
        $lines = ['Camera report;;;;', 'Camera B – Ångström close;;;;', ';;;;', 'Clip;Setup;Take;Framing;Comments'];
        foreach (
            [
                ['3_T01_B', '3', 1, 'MCU', ''],
                ['3_T02_B', '3', 2, 'MCU', 'focus late'],
                ['3A_T01_B', '3A', 1, 'CU', ''],
                ['3A_T02_B', '3A', 2, 'CU', '1,5 m'],
                ['3A_T03_B', '3A', 3, 'CU', 'best'],
                ['7_T01_B', '7', 1, 'MS', ''],
                ['7_T02_B', '7', 2, 'MS', 'flare'],
                ['B010C002', '', '', '', 'camera ran on the way'],
                ['12_T01_B', '12', 1, 'MS', ''],
                ['12_T02_B', '12', 2, 'MS', ''],
                ['12A_T01_B', '12A', 1, 'BCU', ''],
                ['12A_T02_B', '12A', 2, 'BCU', 'tête perfect'],
            ]
            as $row
        ) {
            $lines[] = implode(';', $row);
        }

        return mb_convert_encoding(implode("\r\n", $lines) . "\r\n", 'Windows-1252', 'UTF-8');
    }

    private static function script(): string
    {
        $text = "Title: Low Water\nCredit: a short drama\n\n";
        foreach (['3' => ['3', '3A'], '5' => [], '7' => ['7', '7A'], '9' => [], '12' => ['12', '12A'], '21' => []] as $scene => $setups) {
            $heading = Scenario::SCENES[$scene]['heading'] ?? ($scene === 5 ? 'EXT. CAUSEWAY, DAY' : 'INT. KITCHEN, EVENING');
            $text .= "$heading #$scene#\n\n";
            foreach ($setups as $setup) {
                $text .= Scenario::SETUPS[$setup]['text'] . ".\n\n";
                foreach (Scenario::SETUPS[$setup]['lines'] as [$who, $line]) {
                    $text .= strtoupper($who) . "\n$line\n\n";
                }
            }
            foreach ($scene === 21 ? Scenario::MEETING_LINES : [] as [$who, $line]) {
                $text .= strtoupper($who) . "\n$line\n\n";
            }
            $text .= $setups === [] && $scene !== 21 ? "Nobody comes.\n\n" : '';
        }

        return $text;
    }

    /** @param  list<string>  $cells */
    private static function row(array $cells): Row
    {
        return WriterEntityFactory::createRowFromArray($cells);
    }
}
