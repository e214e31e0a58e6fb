import App from './App.json'
import assembly from './assembly.json'
import bins from './bins.json'
import cards from './cards.json'
import counted from './counted.json'
import day from './day.json'
import grid from './grid.json'
import handoff from './handoff.json'
import lineup from './lineup.json'
import log from './log.json'
import player from './player.json'
import scopes from './scopes.json'
import screening from './screening.json'
import settings from './settings.json'
import shell from './shell.json'
import values from './values.json'
import words from './words.json'

export default {
  App,
  assembly,
  bins,
  cards,
  counted,
  day,
  grid,
  handoff,
  lineup,
  log,
  player,
  scopes,
  screening,
  settings,
  shell,
  values,
  words,
}
