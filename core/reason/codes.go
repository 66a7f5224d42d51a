package reason

// Codes lists every code, so that a screen can be held to have a sentence for each: a
// new reason is one line here and its sentence.
var Codes = []string{
	"a-card", "a-climb", "a-cycle", "a-game", "a-pattern", "a-scale", "after-break", "aims-card-bowed", "aims-card-keyboard", "aims-card-plucked", "aims-card-shared", "another-game", "before-in-book", "before-the-book", "brings-and-needs", "calendar-clash",
	"calendar-long-day", "calendar-no-pause",
	"card-accidental", "card-aside", "card-away", "card-black-right", "card-chord", "card-distance", "card-distance-right", "card-five",
	"card-five-right", "card-five-steps", "card-five-steps-right", "card-half", "card-half-or-whole", "card-home", "card-landmark", "card-note",
	"card-note-right", "card-rhythm", "card-rhythm-right", "card-shown-both", "card-shown-ledger", "card-shown-line", "card-shown-notes",
	"card-shown-over", "card-shown-rhythm", "card-shown-signature", "card-shown-space", "card-shown-tab", "card-shown-under", "card-signature",
	"card-signature-right", "card-staves", "card-staves-right", "card-string", "card-string-right", "card-tab", "card-tab-right", "card-ways",
	"card-ways-right", "card-whole",
	"carried-over", "carries", "chosen", "close-heard", "close-made-up", "comes-next", "corrected", "count-by-age", "count-correct-only",
	"count-quality", "date-at-risk", "drops-out", "drops-to", "due-again", "earlier-help", "effect-counts", "effect-cue", "effect-hands",
	"effect-head-starts", "effect-lesson", "effect-line", "effect-moves", "effect-none", "effect-order", "effect-ready", "effect-share", "effect-treats", "fading", "fill-ladder",
	"first-lesson", "fix-delay", "fix-drop", "fix-landing", "foothold", "game-learning", "game-moves", "game-prepares", "game-refreshes",
	"goes-already", "grown-gently", "head-start", "head-start-late", "head-start-next", "head-start-shown", "hear-far-ahead", "hear-it-early", "hold-this",
	"home-ask-feeling", "home-ask-parts", "home-choose-together", "home-feed", "home-habit", "home-joyless", "home-lacks", "home-smaller", "home-talk",
	"home-three-way", "home-untold", "in-hand", "join-two", "jump-bridge", "jump-no-bridge", "keep-alive", "landing-after-climb", "lighter-week",
	"load-hands", "load-kept-low", "load-learning", "load-material", "load-new", "load-prepared", "load-rusty", "load-tempo", "load-unknown",
	"measure-first", "measure-grown", "measure-term", "minute-crossing", "minute-figures", "minute-hand-figures", "minute-jump", "minute-key",
	"minute-leap", "minute-shift", "minute-start", "minute-start-chord", "minute-start-hand", "minute-start-string", "minute-taste", "minute-theory",
	"minute-trip", "move-better", "move-brings", "move-for-date", "move-landing", "new-notes", "new-skill", "new-small-thing", "newest-kept",
	"next-in-book", "no-playing", "no-room-for", "no-such-skill", "not-taught", "nothing-brings", "nothing-placed", "now-current", "orphan-skill",
	"other-family", "other-hand-only", "over", "pain-stop", "past-its-range", "placed", "plays-well", "plays-well-too", "point-met", "point-open",
	"points-lost", "practised-week", "prepared-more", "probe", "probe-again", "probe-answered", "read-not-played", "ready-to-try", "remedy-ask",
	"remedy-ask-dull", "remedy-easier", "remedy-fewer", "remedy-prerequisite", "remedy-prerequisite-unmet", "remedy-seat", "remedy-seat-point",
	"remedy-split", "remote-lesson", "rest-within", "rests-the-hands", "script-count", "script-direction", "script-ear", "seat-estimated", "seat-firm",
	"seat-first", "seat-footstool", "seat-height", "seat-platform", "seat-platform-pedals", "seat-spike", "seat-stand", "seat-tiles", "seat-too-high",
	"shifted-later", "shifted-sooner", "small-first", "small-thing-going", "spot-carried", "spot-count", "spot-first", "squeezed", "still-open", "struck-often", "stuck-small",
	"stop-if-it-hurts", "stretched", "taught", "thin-week", "to-taste", "too-short-for", "tries-failed", "try-first-book", "upkeep-share",
	"waits-for-its-lesson",
}
