// The page of a hand-out. It holds no text of anyone's: all of that comes in as data, and stays data.
#let sheet = json(bytes(sys.inputs.sheet))
#let size = float(sys.inputs.size) * 1pt

#set document(title: sheet.title)
#set page(
  paper: if sheet.paper == "letter" { "us-letter" } else { "a4" },
  margin: (x: 1.6cm, top: 1.3cm, bottom: 1.5cm),
  footer: context if counter(page).final().first() > 1 {
    set text(size: 0.8em)
    align(right)[page #counter(page).display() of #counter(page).final().first()]
  },
)
#set text(font: ("Atkinson Hyperlegible Next",), size: size, lang: "en", hyphenate: false)
#set par(leading: 0.52em, spacing: 0.7em)
#show heading: set text(font: ("Bricolage Grotesque", "Atkinson Hyperlegible Next"), weight: 700)
#show heading.where(level: 1): set text(size: 2.2em)
#show heading.where(level: 2): set text(size: 1.2em)
#show heading.where(level: 1): set block(above: 0.5em, below: 0.45em)
#show heading.where(level: 2): set block(above: 0em, below: 0.5em)
#set block(breakable: false)

#let picture(one) = image(bytes(one.svg), format: "svg", width: 100%, alt: one.words)
#let tick = box(width: 0.95em, height: 0.95em, stroke: 0.7pt, radius: 1.5pt, baseline: 0.12em)
#let words(runs) = for run in runs { if run.is_word { strong(run.text) } else { run.text } }

#block(width: 100%, below: 0.2em, text(size: 0.86em, grid(
  columns: (1fr, auto),
  column-gutter: 1em,
  sheet.whom,
  sheet.issued,
)))

= #sheet.title

#if sheet.purpose != "" [*What for:* #sheet.purpose]

#block(above: 0.75em, text(size: 1.06em, words(sheet.brief)))

#if sheet.differs.len() > 0 [*For you:* #sheet.differs.join(", ").]

#if sheet.before.len() > 0 {
  block(above: 1.1em)[
    == Before you play
    #for (place, step) in sheet.before.enumerate() [#box[#(place + 1)#h(0.5em)]#step#h(1.2em)]
  ]
}

#if sheet.cues.len() > 0 [*Think of:* #sheet.cues.join("; ").]

#v(0.3em)
#for row in sheet.rails { block(above: 0.35em, below: 0.35em, picture(row)) }
#for page in sheet.notation { block(above: 0.5em, below: 0.5em, breakable: true, picture(page)) }

#if sheet.fit.len() > 0 or sheet.more != "" {
  block(text(size: 0.92em, (..sheet.fit, ..if sheet.more != "" { (sheet.more + ".",) }).join(" ")))
}

#let rungs() = block(above: 1.1em)[
  == Your rungs
  #if sheet.rungs_told != "" { block(below: 0.5em, text(size: 0.86em, sheet.rungs_told)) }
  #let clicks = sheet.rungs.any(rung => rung.click != "")
  #let others = sheet.rungs.any(rung => rung.what != "")
  #set text(size: 0.94em)
  #table(
    columns: 3 + int(clicks) + int(others) + 1,
    stroke: (x: none, y: 0.6pt),
    inset: (x: 0.3em, y: 0.36em),
    table.header(
      strong(sheet.sign + " ="),
      strong[metronome],
      strong[notes a second],
      ..if clicks { (strong[click],) },
      ..if others { (strong[what],) },
      strong[clean, a box a take],
    ),
    ..sheet.rungs.map(rung => (
      if rung.is_now [*#rung.tempo* ←] else { strong(rung.tempo) },
      rung.metronome,
      rung.speed,
      ..if clicks { (rung.click,) },
      ..if others { (rung.what,) },
      range(rung.boxes).map(_ => tick).join(h(0.35em)),
    )).flatten(),
  )
  #if sheet.first_click != "" { text(size: 0.86em, sheet.first_click) }
]

#let moving() = {
  block(above: 1.1em)[
    == #if sheet.moving != "" [When to move] else [When to go on]
    #if sheet.moving != "" [#sheet.moving *Stay* in between.]

    #sheet.clean
  ]
  if sheet.days.len() > 0 {
    block(above: 1.1em)[
      == #sheet.week
      #set text(size: 0.86em)
      #grid(
        columns: sheet.days.len() * (auto,),
        column-gutter: 0.55em,
        row-gutter: 0.3em,
        align: center,
        ..sheet.days.map(day => day.name),
        ..sheet.days.map(day => if day.minutes == "" { [–] } else {
          box(width: 1.7em, height: 1.7em, stroke: 0.7pt, radius: 2pt)
        }),
        ..sheet.days.map(day => text(size: 0.86em, day.minutes)),
      )
    ]
  }
}

#if sheet.rungs.len() > 0 {
  if sheet.large or sheet.rungs.any(rung => rung.click != "" or rung.what != "") {
    rungs()
    moving()
  } else {
    block(width: 100%, above: 1.1em, grid(columns: (1.2fr, 1fr), column-gutter: 1.6em, rungs(), moving()))
  }
} else if sheet.days.len() > 0 or sheet.clean != "" { moving() }

#if sheet.note != "" {
  block(above: 1.1em)[
    == From your teacher
    #sheet.note.split("\n").map(line => [#line]).join(linebreak())
  ]
}

#if sheet.care.len() > 0 {
  block(width: 100%, stroke: 0.7pt, radius: 4pt, inset: 0.6em, above: 0.9em, text(
    size: 0.92em,
  )[*Care.* #sheet.care.join(" ")])
}

#block(width: 100%, text(size: 0.84em, grid(
  columns: (1fr, auto),
  column-gutter: 1em,
  sheet.foot.at(0),
  sheet.foot.at(1),
)))
