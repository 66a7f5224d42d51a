package reason

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"
)

// A Kind is what an argument of a reason holds.
type Kind string

// The kinds.
const (
	Text    Kind = ""        // a name, a title or words
	Number  Kind = "number"  // in digits
	Day     Kind = "day"     // as 2026-11-18
	Subject Kind = "subject" // what the reason is about, for the program; its sentence does not say it
)

// An Argument is what is given with a code.
type Argument struct {
	Name     string
	Kind     Kind
	Optional bool // it may be empty or absent
}

// declared holds every code with its arguments: a new reason is a line here and a message in the
// catalogues. An argument stands as name:kind, with a question mark where it is optional.
var declared = map[string]string{
	"a-card":                    "title:subject",
	"a-climb":                   "load:number",
	"a-cycle":                   "title:subject",
	"a-game":                    "title:subject",
	"a-pattern":                 "title:subject",
	"a-scale":                   "title:subject",
	"after-break":               "days:number left:subject",
	"aims-card-bowed":           "title",
	"aims-card-keyboard":        "title",
	"aims-card-plucked":         "title",
	"aims-card-shared":          "title",
	"another-game":              "look",
	"before-in-book":            "book passed",
	"before-the-book":           "met missing of",
	"begins-empty":              "",
	"begins-with-nothing":       "book",
	"brings-and-needs":          "skill title",
	"calendar-clash":            "a b on start",
	"calendar-long-day":         "minutes:number on",
	"calendar-no-pause":         "from minutes:number on",
	"card-accidental":           "",
	"card-aside":                "root",
	"card-away":                 "root",
	"card-black-right":          "note of side",
	"card-chord":                "key",
	"card-distance":             "from",
	"card-distance-right":       "far note way",
	"card-five":                 "",
	"card-five-right":           "key",
	"card-five-steps":           "",
	"card-five-steps-right":     "half next",
	"card-half":                 "",
	"card-half-or-whole":        "",
	"card-home":                 "root",
	"card-landmark":             "",
	"card-note":                 "",
	"card-note-right":           "note where",
	"card-rhythm":               "",
	"card-rhythm-right":         "says",
	"card-shown-both":           "high low",
	"card-shown-ledger":         "n:number side sign? staff where",
	"card-shown-line":           "n:number sign? staff",
	"card-shown-notes":          "notes",
	"card-shown-over":           "sign? staff",
	"card-shown-rhythm":         "lengths",
	"card-shown-signature":      "fifths",
	"card-shown-space":          "n:number sign? staff",
	"card-shown-tab":            "fret:number string:number",
	"card-shown-under":          "sign? staff",
	"card-signature":            "",
	"card-signature-right":      "major minor",
	"card-staves":               "",
	"card-staves-right":         "high low",
	"card-string":               "",
	"card-string-right":         "finger:subject note string:number",
	"card-tab":                  "",
	"card-tab-right":            "fret:number note string:number",
	"card-ways":                 "",
	"card-ways-right":           "ways",
	"card-whole":                "",
	"carried-over":              "title",
	"carries":                   "skill title:subject",
	"changed-days":              "says:subject title",
	"changed-gone":              "says title",
	"changed-gone-own":          "says title:subject",
	"changed-lesson":            "day:day until:day",
	"changed-line":              "says title",
	"changed-line-own":          "says title:subject",
	"changed-much":              "",
	"changed-new":               "says title",
	"changed-new-own":           "says title:subject",
	"changed-no-lesson":         "until:day",
	"child-leads":               "",
	"child-teaches":             "",
	"chosen":                    "title:subject",
	"close-heard":               "",
	"close-made-up":             "",
	"comes-next":                "title:subject",
	"coming-back":               "minutes:number",
	"coming-back-lesson":        "minutes:number",
	"corrected":                 "fault",
	"count-by-age":              "",
	"count-correct-only":        "",
	"count-quality":             "",
	"date-at-risk":              "day:day high?:day mid?:day polish:number title:subject",
	"date-comes":                "day:day days:number title",
	"drops-out":                 "kind title?",
	"drops-to":                  "kind minutes:number title?",
	"due-again":                 "days:number",
	"earlier-help":              "skill title",
	"effect-aims":               "first",
	"effect-begin":              "title",
	"effect-counts":             "to",
	"effect-cue":                "cue kind",
	"effect-each-time":          "line",
	"effect-hands":              "first",
	"effect-head-starts":        "from:number to:number",
	"effect-lesson":             "from:number kind to:number",
	"effect-line":               "line title",
	"effect-moves":              "from:number to:number",
	"effect-none":               "",
	"effect-order":              "place:number title",
	"effect-ready":              "skill weeks:number",
	"effect-share":              "from:number to:number",
	"effect-talks":              "weeks:number",
	"effect-treats":             "to",
	"evened":                    "days:number points title",
	"fading":                    "days:number recall:number",
	"fill-ladder":               "books count:number first",
	"first-drawing":             "",
	"first-lesson":              "title",
	"fix-delay":                 "title weeks:number",
	"fix-drop":                  "skill title",
	"fix-landing":               "title weeks:number",
	"foothold":                  "title",
	"game-learning":             "aim",
	"game-moves":                "aim",
	"game-prepares":             "aim",
	"game-refreshes":            "aim",
	"gap":                       "done:subject of:subject ready:number rungs:subject skill tasks:number title:subject weeks:subject",
	"gap-nearly":                "",
	"gap-pass":                  "",
	"goes-already":              "",
	"grown-gently":              "minutes:number",
	"habit-block":               "kind",
	"habit-count":               "count:number sort",
	"habit-count-kept":          "count:number sort",
	"habit-hands":               "",
	"habit-length":              "kind minutes:number",
	"habit-sort":                "sort",
	"habit-struck":              "title",
	"head-start":                "done:number of:number ready:number rungs:number skill tasks:number title weeks:number with?",
	"head-start-late":           "done:subject of:subject ready:number rungs:subject skill tasks:subject title weeks:number with?:subject",
	"head-start-next":           "do skill",
	"head-start-shown":          "skill:subject",
	"hear-far-ahead":            "title",
	"hear-it-early":             "title",
	"heart-days":                "before:number now:number",
	"heart-dull":                "count:number",
	"heart-stuck":               "title",
	"hold-this":                 "point",
	"home-ask-feeling":          "",
	"home-ask-parts":            "",
	"home-choose-together":      "",
	"home-feed":                 "",
	"home-habit":                "",
	"home-joyless":              "times:number",
	"home-lacks":                "title what",
	"home-silent":               "days:number",
	"home-smaller":              "",
	"home-talk":                 "times:number",
	"home-three-way":            "",
	"home-untold":               "",
	"how-it-went":               "day:day title:subject",
	"in-hand":                   "missing title:subject",
	"join-two":                  "",
	"jump-bridge":               "book bridge meets? needs? new? count:subject over:number title",
	"jump-no-bridge":            "needs? new? count:subject over:number title",
	"keep-alive":                "title:subject",
	"keys-labelled":             "",
	"later-again":               "titles:subject until:day",
	"later-lighter":             "titles until:day",
	"landing-after-climb":       "",
	"landing-due":               "climbs:number",
	"lane-done":                 "books lane:subject",
	"lane-none":                 "books lane:subject",
	"lane-waits":                "books lane:subject",
	"left-out-last":             "lessons:number title:subject",
	"lighter-week":              "",
	"load-hands":                "",
	"load-kept-low":             "heaviest:number usual:number",
	"load-learning":             "skill",
	"load-material":             "n:number",
	"load-new":                  "skill",
	"load-prepared":             "n:number skill",
	"load-rusty":                "skill",
	"load-tempo":                "n:number",
	"load-unknown":              "skill",
	"measure-first":             "",
	"measure-grown":             "cm:number days:number",
	"measure-term":              "weeks:number",
	"minute-crossing":           "bars hand",
	"minute-figures":            "bars:number figures:number",
	"minute-hand-figures":       "figures:number hand",
	"minute-jump":               "bars hand",
	"minute-key":                "half? key likely?",
	"minute-leap":               "bar:number hand:subject leap",
	"minute-return":             "as bars kind",
	"minute-shift":              "bars",
	"minute-start":              "key",
	"minute-start-chord":        "fingers hand keys",
	"minute-start-hand":         "finger hand key",
	"minute-start-string":       "finger key place string:number",
	"minute-taste":              "taste",
	"minute-theory":             "dominant? half? key likely? tonic",
	"minute-together":           "bars hand? intervals",
	"minute-trip":               "bar:number signs",
	"move-better":               "before",
	"move-brings":               "before skill",
	"move-for-date":             "before day:day",
	"move-landing":              "before load:number than:number",
	"new-notes":                 "bars ids:subject notes",
	"new-skill":                 "bar:number name skill",
	"new-small-thing":           "",
	"newest-kept":               "title:subject",
	"next-in-book":              "book",
	"no-goals":                  "title",
	"no-playing":                "side",
	"no-room-for":               "title",
	"no-such-skill":             "skill title",
	"not-taught":                "title",
	"nothing-brings":            "skill title",
	"nothing-placed":            "",
	"now-current":               "title",
	"one-hand":                  "hand side",
	"order-apart":               "",
	"order-lively":              "",
	"order-moves":               "",
	"order-young":               "",
	"orphan-skill":              "skill",
	"other-family":              "skill title",
	"other-hand-only":           "hand",
	"over":                      "minutes:number",
	"pain-stop":                 "side where?",
	"pain-waits":                "side",
	"past-its-range":            "title:subject usual:number weeks:number",
	"pinned":                    "",
	"placed":                    "title",
	"plays-well":                "title:subject",
	"plays-well-too":            "recall:number",
	"point-met":                 "more title",
	"point-open":                "more title",
	"points-lost":               "points:number title:subject",
	"polish-for":                "day:day days:number title:subject",
	"practised-week":            "days:number minutes:number",
	"practises-little":          "asked:number days:number",
	"praise-generous":           "",
	"praise-specific":           "",
	"prepared-more":             "done:number of:number skill",
	"probe":                     "aim",
	"probe-asks":                "aim",
	"probe-exit":                "aim",
	"probe-again":               "outcome",
	"probe-answered":            "aim outcome",
	"probe-for":                 "aim",
	"question-waits":            "count:number first",
	"read-not-played":           "",
	"ready-to-try":              "title weeks?:number",
	"remedy-ask":                "title",
	"remedy-ask-dull":           "days:number dull:number title:subject",
	"remedy-easier":             "book piece",
	"remedy-fewer":              "hold open:number",
	"remedy-prerequisite":       "piece skill",
	"remedy-prerequisite-unmet": "skill",
	"remedy-seat":               "",
	"remedy-seat-point":         "point",
	"remedy-split":              "bars:number pieces:number",
	"remote-lesson":             "",
	"rest-within":               "",
	"rests-the-hands":           "",
	"script-count":              "",
	"script-direction":          "",
	"script-ear":                "",
	"seat-book":                 "",
	"seat-estimated":            "",
	"seat-firm":                 "",
	"seat-first":                "",
	"seat-footstool":            "cm:number high:number low:number",
	"seat-height":               "cm:number high:number low:number",
	"seat-platform":             "cm:number high:number low:number",
	"seat-platform-pedals":      "cm:number",
	"seat-spike":                "",
	"seat-stand":                "",
	"seat-tiles":                "n:number",
	"seat-too-high":             "cm:number",
	"sheet-not-opened":          "day:day days:number",
	"sheet-not-sent":            "day:day",
	"shifted-later":             "title weeks:number",
	"shifted-sooner":            "title weeks:number",
	"short-sittings":            "",
	"small-first":               "",
	"small-thing-going":         "",
	"spot-carried":              "title where",
	"spot-count":                "more title",
	"spot-first":                "done:number goal:number where:subject",
	"squeezed":                  "asked:number",
	"start-drawn":               "",
	"still-open":                "count:number first",
	"stop-if-it-hurts":          "",
	"stretched":                 "usual:number",
	"struck-often":              "title",
	"stuck-small":               "title:subject",
	"take-apart":                "hand ms:number",
	"take-early":                "finger ms:number",
	"take-even":                 "",
	"take-late":                 "finger ms:number",
	"take-lope":                 "ratio:number",
	"take-lope-short":           "ratio:number",
	"take-quicker":              "part:number",
	"take-scatter":              "ms:number",
	"take-slips":                "n:number",
	"take-slower":               "part:number",
	"take-spread":               "part:number",
	"take-stops":                "n:number",
	"take-strong":               "by:number finger",
	"take-weak":                 "by:number finger",
	"talk-agreed":               "text",
	"talk-due":                  "day:day with",
	"talk-goals":                "",
	"talk-three-way":            "",
	"taught":                    "title",
	"tempo-clue-title":          "clue",
	"tempo-clue-words":          "clue",
	"tempo-title":               "clue word",
	"tempo-word":                "word",
	"tempo-words":               "clue word",
	"thin-week":                 "days:number of:number",
	"think-apart":               "hand",
	"think-early":               "finger",
	"think-even":                "",
	"think-late":                "finger",
	"think-lope":                "",
	"think-lope-short":          "",
	"think-quicker":             "",
	"think-scatter":             "",
	"think-slips":               "",
	"think-slower":              "",
	"think-spread":              "",
	"think-stops":               "",
	"think-strong":              "finger",
	"think-weak":                "finger",
	"to-taste":                  "taste",
	"too-short-for":             "kind title?",
	"tries-failed":              "title:subject tries:number",
	"try-first-book":            "met of",
	"upkeep-share":              "pieces:number share weeks:number",
	"waits-for-its-lesson":      "title",
	"waits-long":                "lessons:number title",
	"went-easily":               "",
	"went-fell-apart":           "",
	"went-fine":                 "",
	"went-rough":                "",
	"whole-piece":               "title:subject",
}

// Codes lists every code.
var Codes = slices.Sorted(maps.Keys(declared))

// Arguments returns what is given with a code, and whether there is such a code.
func Arguments(code string) ([]Argument, bool) {
	line, known := declared[code]
	var out []Argument
	for word := range strings.FieldsSeq(line) {
		name, kind, _ := strings.Cut(word, ":")
		name, optional := strings.CutSuffix(name, "?")
		out = append(out, Argument{name, Kind(kind), optional})
	}
	return out, known
}

// Check says what is wrong with a reason: a code that nobody declared, an argument that is missing,
// unknown or not of its kind.
func (r Reason) Check() error {
	arguments, known := Arguments(r.Code)
	if !known {
		return fmt.Errorf("%s is not declared", r.Code)
	}
	left := maps.Clone(r.Args)
	for _, a := range arguments {
		value := left[a.Name]
		delete(left, a.Name)
		if value == "" && a.Optional {
			continue
		}
		if err := a.Kind.check(value); err != nil {
			return fmt.Errorf("%s, %s: %w", r.Code, a.Name, err)
		}
	}
	for name := range left {
		return fmt.Errorf("%s takes no argument %s", r.Code, name)
	}
	return nil
}

func (k Kind) check(value string) error {
	var err error
	switch k {
	case Number:
		_, err = strconv.ParseFloat(value, 64)
	case Day:
		_, err = time.Parse(time.DateOnly, value)
	case Text:
		if value == "" {
			err = fmt.Errorf("it is empty")
		}
	}
	return err
}
