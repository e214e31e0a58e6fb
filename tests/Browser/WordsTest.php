<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use Tests\Browser\Support\BrowserTestCase;

/** Somebody looks for a line by its words, hears it, keeps it, and mends what was heard wrongly; by keys. */
final class WordsTest extends BrowserTestCase
{
    public function test_a_day_is_listened_to_and_a_line_is_found_by_its_words_and_heard(): void
    {
        $this->signIn('rosa');
        $this->tapSound();
        $this->press('3');
        $this->see('.sheet .row.take');
        $this->press(WebDriverKeys::ALT . 'l' . WebDriverKeys::NULL);
        $this->see('body', 'is being found');
        $this->until(
            fn(): bool => $this->jsAsync(
                <<<'JS'
                const done = arguments[arguments.length - 1]
                const production = location.pathname.split('/')[1]
                fetch(`/api/productions/${production}/tasks`)
                  .then((answer) => answer.json())
                  .then(({ tasks }) => done(tasks.some((one) => one.kind === 'words' && one.state === 'done')))
                JS
                ,
                10,
            ) === true,
            'the words are not found',
            240,
        );
        $this->see('.row.scene', 'lines heard');
        $this->press(WebDriverKeys::ALT . '/' . WebDriverKeys::NULL);
        // The driver brings the focus back to where it sent the key.
        $this->click('input.find');
        $this->press(...mb_str_split('"mend a gate"'));
        $this->see('.hit', 'mend a gate');
        $marked =
            'return [...document.querySelectorAll(".hit")].map((one) => [...one.querySelectorAll("mark")].map((word) => ' .
            'word.textContent).join(" "))';
        $this->until(fn(): bool => $this->js($marked) === ['mend a gate.', 'mend a gate.'], 'the phrase is not marked in both takes');
        $this->js('window.ears()');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.right [aria-label="Stop"], .right [aria-label="Pause"], .right .player');
        $this->until(fn(): bool => max((array) $this->js('return window.ears()')) > 0.02, 'nothing is heard');
        self::assertSame([], $this->consoleErrors());
    }

    #[Depends('test_a_day_is_listened_to_and_a_line_is_found_by_its_words_and_heard')]
    public function test_chosen_words_are_kept_as_a_subclip_called_after_them(): void
    {
        $this->click('.right button', 'Its sheet');
        $this->see('.word', 'mend');
        $this->click('.word', 'mend');
        $this->press(WebDriverKeys::SHIFT . WebDriverKeys::ARROW_RIGHT . WebDriverKeys::ARROW_RIGHT . WebDriverKeys::NULL);
        $this->until(
            fn(): bool => $this->js('return document.querySelectorAll(".word.chosen").length') === 3,
            'three words are not chosen',
        );
        $this->press('u');
        $this->see('body', '“mend a gate” is kept as a subclip');
        $this->see('.bottom', 'mend a gate');
    }

    #[Depends('test_chosen_words_are_kept_as_a_subclip_called_after_them')]
    public function test_a_word_is_written_anew_and_taken_back(): void
    {
        $this->click('.word', 'mend');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.paragraph input.field');
        $this->press(...mb_str_split('send'));
        $this->press(WebDriverKeys::ENTER);
        $this->see('.word.mended', 'send');
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::NULL);
        $this->seeNo('.word.mended');
        $this->see('.word', 'mend');
        self::assertSame([], $this->consoleErrors());
    }

    #[Depends('test_a_word_is_written_anew_and_taken_back')]
    public function test_all_reads_of_a_line_are_played_beside_the_script(): void
    {
        $this->click('.chip', 'Beside the script');
        $this->see('.line', 'Quill');
        $this->see('.reads', 'reads');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.right', '1 more behind it');
        $this->until(fn(): bool => !str_contains($this->text('.right h2'), 'more behind it'), 'the next read does not follow', 60);
        $this->see('.right h2', '12/2');
        self::assertSame([], $this->consoleErrors());
    }
}
