<template>
  <details>
    <summary>How a lick is written</summary>
    <p>
      <b>R b3 3 11 5 b7</b> and the other degrees, <b>,</b> or <b>'</b> behind them for the octave below or above.
      Lengths: <b>w h q e s</b> from the whole note to the sixteenth, <b>t</b> and <b>T</b> thirds, a dot for half as
      much again. Then <b>h</b> hammer-on, <b>p</b> pull-off, <b>s</b> slide, <b>^1 ^2</b> bent by half steps,
      <b>^q</b> a curl, <b>_</b> released, <b>~</b> vibrato, <b>&gt;</b> accent. <b>3+5/e</b> sounds together,
      <b>-/q</b> rests, and what stands before <b>|</b> is a pickup.
    </p>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 2rem;
  color: var(--soft);
}
</style>
