const page = () => document.querySelector('.cut')
if (what === 'open') {
    const times = []
    for (let n = 0; n < 5; n++) {
        await until(() => document.querySelector('.row .name') !== null)
        await wait(300)
        const row = [...document.querySelectorAll('.row .name')].find((one) => one.textContent.includes('Wide cut'))
        const begin = performance.now()
        row.click()
        await until(() => Number(document.querySelector('.paper')?.dataset.perPixel) > 0)
        times.push(performance.now() - begin)
        await wait(1500)
        if (n < 4) key('Escape')
    }
    done({ times })
} else if (what === 'paper') {
    // All that the page does for one picture: what it hears, what follows of that, and what it draws.
    const ask = window.requestAnimationFrame.bind(window)
    let spent = 0
    window.requestAnimationFrame = (work) =>
        ask((time) => {
            const begin = performance.now()
            work(time)
            spent += performance.now() - begin
        })
    const paper = document.querySelector('.paper')
    const area = paper.getBoundingClientRect()
    const times = []
    for (let n = 0; n < 240; n++) {
        spent = 0
        const begin = performance.now()
        const turn = Math.floor(n / 40) % 3
        paper.dispatchEvent(
            new WheelEvent('wheel', {
                bubbles: true,
                cancelable: true,
                clientX: area.left + 500,
                clientY: area.top + 80,
                deltaY: turn === 0 ? -30 : turn === 1 ? 0 : 18,
                deltaX: turn === 1 ? 60 : 0,
                ctrlKey: turn !== 1,
            }),
        )
        // What was watched is followed before the next task.
        await Promise.resolve()
        await Promise.resolve()
        const heard = performance.now() - begin
        await new Promise((resolve) => ask(() => ask(resolve)))
        times.push(heard + spent)
    }
    window.requestAnimationFrame = ask
    done({ times })
} else if (what === 'edit') {
  const drawn = []
  key('Home')
  for (let n = 0; n < given.rounds; n++) {
    // A hand goes to a cut and works on it; what is seen and heard there comes meanwhile.
    if (n % 4 === 0) {
      key("'")
      await wait(1200)
    }
    const step = Number(page().dataset.step)
    const begin = performance.now()
    key(n % 2 === 0 ? ']' : '[')
    await until(() => Number(page().dataset.step) === step + 1)
    drawn.push(performance.now() - begin)
    await wait(250)
  }
  done({ drawn })
} else if (what === 'undo') {
    const drawn = []
    for (let n = 0; n < given.rounds; n++) {
        const step = Number(page().dataset.step)
        const begin = performance.now()
        key('z', { ctrlKey: true })
        await until(() => Number(page().dataset.step) === step + 1)
        drawn.push(performance.now() - begin)
        await wait(350)
    }
    done({ drawn })
}
