package year

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/studio/places"
)

// A claim is a reason as it was shown, with what a reader of the same view sees beside it.
type claim struct {
	reason.Reason
	place string            // where it was shown
	day   calendar.Date     // on which
	rung  *places.RungView  // that it is about; nil where it is about none
	rungs []places.RungView // all
	run   *run              // what was told so far
}

func (c claim) number(arg string) int {
	n, err := strconv.Atoi(c.Args[arg])
	if err != nil {
		return math.MinInt
	}
	return n
}

// named reports whether a title is one of the ladder's, or of the studio's shelf.
func (c claim) named(arg string) bool {
	title := c.Args[arg]
	if title == "" {
		return false
	}
	for _, it := range c.run.items {
		if it.Title == title {
			return true
		}
	}
	return slices.ContainsFunc(c.rungs, func(v places.RungView) bool { return v.Title == title })
}

func (c claim) secure() bool { return c.rung != nil && c.rung.Foothold != nil }
func (c claim) inHand() bool { return c.rung != nil && c.rung.State == ladder.Current }
func (c claim) filled() bool { // every argument says something
	for _, v := range c.Args {
		if v == "" {
			return false
		}
	}
	return true
}

// truth says of each reason that a lived student is shown when it is true, from the facts told and
// the view alone. A code without an entry breaks the rule: a new reason needs its truth.
var truth = map[string]func(claim) bool{
	"first-lesson": func(c claim) bool { return c.inHand() && c.rung.Taught == nil },
	"no-goals":     func(c claim) bool { return c.inHand() && len(c.rung.Missing) == 0 && !c.rung.Ready },
	"still-open": func(c claim) bool {
		return c.inHand() && c.number("count") == len(c.rung.Missing) && c.Args["first"] == c.rung.Missing[0]
	},
	"in-hand":      func(c claim) bool { return c.inHand() && c.rung.Taught != nil && len(c.rung.Missing) > 0 && c.filled() },
	"ready-to-try": func(c claim) bool { return c.rung != nil && met(*c.rung) && !c.run.seen.ache },
	"hold-this":    func(c claim) bool { return c.inHand() && slices.Contains(c.rung.Missing, c.Args["point"]) },
	"whole-piece": func(c claim) bool {
		return c.inHand() && len(c.rung.Missing) == 0 && (!met(*c.rung) || c.run.seen.ache)
	},
	"small-first": func(c claim) bool { return c.inHand() && c.rung.Taught != nil },
	"join-two":    func(c claim) bool { return c.inHand() && c.rung.Taught != nil },
	"stuck-small": func(c claim) bool { return c.inHand() && c.rung.Expected != nil },
	"spot-first": func(c claim) bool {
		return c.inHand() && slices.ContainsFunc(c.rung.Spots, func(s places.SpotView) bool {
			return s.Where == c.Args["where"] && s.Done == c.number("done") && s.Goal == c.number("goal") && s.Done < s.Goal
		})
	},
	"a-scale":        func(c claim) bool { return c.named("title") },
	"a-pattern":      func(c claim) bool { return c.named("title") },
	"a-cycle":        func(c claim) bool { return c.inHand() && len(c.rung.Parts) > 0 },
	"a-card":         func(c claim) bool { return c.named("title") },
	"a-game":         func(c claim) bool { return c.Args["title"] != "" },
	"a-climb":        claim.filled,
	"pinned":         func(c claim) bool { return c.rung != nil },
	"newest-kept":    func(c claim) bool { return c.secure() && c.day.Sub(calendar.On(*c.rung.Foothold)) <= 42 },
	"keep-alive":     claim.secure,
	"carries":        func(c claim) bool { return c.secure() && c.Args["skill"] != "" },
	"fading":         func(c claim) bool { return c.secure() && c.number("recall") < 90 && c.number("days") >= 0 },
	"due-again":      func(c claim) bool { return c.secure() && c.number("days") >= 0 },
	"plays-well":     claim.secure,
	"plays-well-too": func(c claim) bool { return c.number("recall") > 0 && c.number("recall") <= 100 },
	"polish-for":     func(c claim) bool { return c.secure() && c.rung.Target == calendar.Date(c.Args["day"]) },
	"how-it-went":    func(c claim) bool { return c.secure() && calendar.Date(c.Args["day"]) <= c.day },
	"date-at-risk": func(c claim) bool {
		return c.rung != nil && c.rung.Target == calendar.Date(c.Args["day"]) && !c.rung.Polished
	},
	"hear-it-early":    func(c claim) bool { return c.rung != nil && c.rung.Taught == nil && c.rung.HasScore },
	"hear-far-ahead":   func(c claim) bool { return c.rung != nil && c.rung.Taught == nil && c.rung.HasScore },
	"head-start":       func(c claim) bool { return c.Args["title"] != "" && c.Args["skill"] != "" },
	"head-start-late":  func(c claim) bool { return c.Args["title"] != "" && c.Args["skill"] != "" },
	"head-start-shown": func(c claim) bool { return true },
	"gap":              func(c claim) bool { return c.Args["skill"] != "" },
	"comes-next":       func(c claim) bool { return c.named("title") },
	"left-out-last": func(c claim) bool {
		return c.inHand() && c.number("lessons") >= 1 && c.number("lessons") <= c.run.seen.lessons
	},
	"waits-long": func(c claim) bool {
		return c.inHand() && c.rung.Taught == nil && c.number("lessons") >= 3 && c.number("lessons") <= c.run.seen.lessons
	},
	"waits-for-its-lesson": func(c claim) bool {
		return slices.ContainsFunc(c.rungs, func(v places.RungView) bool {
			return v.Title == c.Args["title"] && v.Taught == nil && v.State == ladder.Current
		})
	},
	"past-its-range": func(c claim) bool {
		return c.inHand() && c.rung.Expected != nil && c.rung.Expected.Past && c.rung.Expected.Spent > c.rung.Expected.Usual.High
	},
	"tries-failed":      func(c claim) bool { return c.inHand() && c.number("tries") >= 2 },
	"points-lost":       func(c claim) bool { return c.inHand() && c.number("points") >= 1 },
	"evened":            func(c claim) bool { return c.rung != nil },
	"probe":             func(c claim) bool { return activity.IsProbe(c.Args["aim"]) },
	"probe-for":         claim.filled,
	"probe-again":       func(c claim) bool { return c.Args["outcome"] != "pass" },
	"carried-over":      claim.filled,
	"goes-already":      func(c claim) bool { return c.secure() },
	"new-small-thing":   func(c claim) bool { return c.rung != nil && c.rung.Taught == nil },
	"small-thing-going": func(c claim) bool { return c.rung != nil && c.rung.Taught != nil },
	"game-learning":     claim.filled,
	"game-prepares":     claim.filled,
	"game-moves":        func(c claim) bool { return c.filled() && c.run.age(c.day) < 8 },
	"game-refreshes":    claim.filled,
	"close-made-up":     func(c claim) bool { return !c.run.seen.ache },
	"close-heard":       func(c claim) bool { return true },
	"chosen":            func(c claim) bool { return c.run.seen.chosen[c.day] || c.Args["title"] != "" },
	"squeezed":          func(c claim) bool { return c.number("asked") > 0 },
	"stretched":         func(c claim) bool { return c.number("usual") > 0 },
	"too-short-for":     func(c claim) bool { return c.Args["kind"] != "" },
	"nothing-placed": func(c claim) bool {
		return !slices.ContainsFunc(c.rungs, func(v places.RungView) bool { return v.State == ladder.Current })
	},
	"rests-the-hands": func(c claim) bool { return c.run.seen.ache || c.run.seen.hurt.cleared != "" },
	"read-not-played": func(c claim) bool { return c.run.seen.ache },
	"other-hand-only": func(c claim) bool { return c.run.seen.ache && c.Args["hand"] == "left" },
	"pain-stop":       func(c claim) bool { return c.run.seen.ache && c.Args["side"] == "right" },
	"pain-waits":      func(c claim) bool { return c.run.seen.ache && c.Args["side"] == "right" },
	"coming-back": func(c claim) bool {
		return !c.run.seen.ache && c.run.seen.hurt.cleared != "" && c.day.Sub(c.run.seen.hurt.cleared) < 21
	},
	"coming-back-lesson": func(c claim) bool {
		return !c.run.seen.ache && c.run.seen.hurt.cleared != "" && c.day.Sub(c.run.seen.hurt.cleared) < 21
	},
	"remote-lesson":        func(c claim) bool { return true }, // a lesson that was told so is looked at by itself
	"child-teaches":        func(c claim) bool { return c.run.age(c.day) < 8 && c.run.seen.lessons == 0 },
	"after-break":          func(c claim) bool { return c.number("days") > 14 },
	"thin-week":            func(c claim) bool { return !c.run.seen.ache && 2*c.number("days") < c.number("of") },
	"grown-gently":         func(c claim) bool { return c.number("minutes") > 0 },
	"no-room-for":          func(c claim) bool { return c.named("title") },
	"struck-often":         func(c claim) bool { return c.Args["title"] != "" },
	"home-lacks":           claim.filled,
	"lane-none":            func(c claim) bool { return c.Args["lane"] != "" },
	"lane-done":            func(c claim) bool { return c.Args["lane"] != "" },
	"lane-waits":           func(c claim) bool { return c.Args["lane"] != "" },
	"fill-ladder":          func(c claim) bool { return c.number("count") > 0 && c.Args["first"] != "" },
	"jump-bridge":          func(c claim) bool { return c.rung == nil || c.rung.Taught == nil },
	"jump-no-bridge":       func(c claim) bool { return c.rung == nil || c.rung.Taught == nil },
	"move-better":          func(c claim) bool { return c.rung != nil },
	"move-brings":          func(c claim) bool { return c.Args["skill"] != "" && c.Args["before"] != "" },
	"move-for-date":        func(c claim) bool { return c.rung != nil },
	"move-landing":         func(c claim) bool { return c.rung != nil },
	"upkeep-share":         func(c claim) bool { return c.number("share") >= 75 && c.number("pieces") > 0 },
	"load-kept-low":        claim.filled,
	"before-the-book":      func(c claim) bool { return c.run.seen.mixture },
	"try-first-book":       func(c claim) bool { return c.run.seen.mixture && c.number("met") >= c.number("of")-1 },
	"home-untold":          func(c claim) bool { return c.told(28) == 0 },
	"home-feed":            func(c claim) bool { return c.told(28) > 0 },
	"home-joyless":         func(c claim) bool { return c.number("times") >= 2 },
	"home-ask-parts":       func(c claim) bool { return c.told(28) > 0 },
	"home-choose-together": func(c claim) bool { return c.told(28) > 0 },
	"home-talk":            func(c claim) bool { return c.told(28) > 0 },
	"home-habit":           func(c claim) bool { return c.told(28) > 0 && !c.run.seen.ache },
	"home-smaller":         func(c claim) bool { return c.told(28) > 0 && !c.run.seen.ache },
	"home-ask-feeling":     func(c claim) bool { return c.told(28) > 0 },
	"home-three-way":       func(c claim) bool { return c.run.age(c.day) >= 13 && c.run.age(c.day) < 18 },
}

// told counts the days at home that were told in the last days.
func (c claim) told(days int) int {
	n := 0
	for _, s := range c.run.seen.told3 {
		if c.day.Sub(s.day) < days {
			n++
		}
	}
	return n
}

// truths holds reasons, as they are shown beside some rungs, against their truth.
func (r *run) truths(place string, list []reason.Reason, rungs []places.RungView, day calendar.Date) {
	for _, why := range list {
		c := claim{Reason: why, place: place, day: day, rungs: rungs, run: r}
		if len(rungs) == 1 {
			c.rung = &rungs[0]
		}
		says := c.false()
		if err := why.Check(); err != nil {
			says = err.Error()
		}
		r.ledger.hold("27 truth", says == "", func() string { return fmt.Sprintf("%s, %s, %s: %s", r.life.name, day, place, says) })
	}
}

// false says what is wrong with a claim; empty for nothing.
func (c claim) false() string {
	holds, known := truth[c.Code]
	switch {
	case !known:
		return fmt.Sprintf("nobody says when %s is true", c.Code)
	case !holds(c):
		title := ""
		if c.rung != nil {
			title = c.rung.Title
		}
		return fmt.Sprintf("%s %v is not true of %q", c.Code, c.Args, title)
	}
	return ""
}
