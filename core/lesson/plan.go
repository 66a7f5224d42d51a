// Package lesson plans the minutes of a lesson.
//
// A plan is a list of blocks in the order they are given, whole minutes each,
// that add up to the length of the lesson. What may fill a block is what is due:
// current rungs, the secure pieces that the week's upkeep puts first, what is
// prepared for later, games and studies for what is being learnt. Which blocks
// there are, and how long, is the division of the minutes that is worth most
// (divide.go); the teacher's own changes are kept to (order.go).
//
// Weights and minutes of the kinds of blocks stand in the table shapes: a
// judgement; a larger weight gives that kind more of the lesson.
package lesson

import (
	"strconv"
	"time"

	"patientladder/core/activity"
	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/skill"
)

// A Kind is what a block is for.
type Kind string

// The kinds of blocks.
const (
	SetUp     Kind = "set-up"
	Opener    Kind = "opener"
	Technique Kind = "technique"
	Current   Kind = "current"
	Reading   Kind = "reading"
	Upkeep    Kind = "upkeep"
	Ahead     Kind = "ahead"
	Activity  Kind = "activity" // away from the page or the instrument
	Probe     Kind = "probe"    // an aim of the first meetings
	Mixture   Kind = "mixture"  // a small thing before the first book
	Open      Kind = "open"     // nothing is placed yet
	Close     Kind = "close"
	Home      Kind = "home"
)

// Kinds lists them in the order of a lesson.
var Kinds = []Kind{SetUp, Opener, Technique, Current, Probe, Mixture, Reading, Activity, Upkeep, Ahead, Open, Close, Home}

// A shape is what is usual for a kind of block: its place in the lesson, its
// least and best minutes, its most where that is not the usual longest activity,
// its weight, its band, and whether no lesson is without it.
type shape struct {
	place, least, best, most int
	weight                   float64
	band                     string
	must                     bool
}

// shapes holds each kind's. A new kind is one entry here.
var shapes = map[Kind]shape{
	SetUp:     {0, 1, 2, 3, 0.8, "", true},
	Opener:    {1, 2, 4, 0, 1, "upkeep", false},
	Technique: {2, 3, 6, 0, 1.3, "now", false}, // calm minutes or none
	Current:   {3, 4, 9, 0, 2.4, "now", false},
	Probe:     {4, 1, 2, 0, 1.6, "now", false},
	Mixture:   {4, 1, 3, 0, 1.2, "now", false},
	Reading:   {5, 2, 5, 0, 1, "now", false},
	Activity:  {6, 1, 2, 4, 0.55, "", false},
	Upkeep:    {7, 2, 4, 0, 1, "upkeep", false},
	Ahead:     {8, 2, 2, 3, 0.5, "ahead", false},
	Open:      {9, 1, 10, 0, 2, "", true},
	Close:     {10, 1, 2, 4, 0.8, "", true},
	Home:      {11, 1, 2, 4, 0.8, "", true},
}

// shapeFor returns a kind's shape at an age.
func shapeFor(k Kind, age int) shape {
	s := shapes[k]
	if s.most == 0 {
		s.most = Longest(age)
	}
	switch {
	case k == Technique && age >= 10:
		s.least = 4
	case k == Current && age >= 10:
		s.least = 6
	}
	s.best = min(s.best, s.most)
	return s
}

// A Block is a stretch of minutes.
type Block struct {
	Key      string             `json:"key" doc:"the same as long as the block holds the same thing"`
	Kind     Kind               `json:"kind" enum:"set-up,opener,technique,current,probe,mixture,reading,activity,upkeep,ahead,open,close,home"`
	Band     string             `json:"band" doc:"ahead, now, upkeep or empty"`
	Title    string             `json:"title" doc:"of the item; empty where there is none"`
	Rung     string             `json:"rung,omitempty"`
	Tune     string             `json:"tune,omitempty" doc:"of a head start: the item of the old tune that it is done on"`
	Exercise string             `json:"exercise,omitempty" doc:"of a head start: the specification of what its task plays"`
	Old      skill.Old          `json:"old,omitempty" enum:"same,minor" doc:"in what form"`
	Skill    string             `json:"skill,omitempty" doc:"of a head start"`
	Step     int                `json:"step,omitempty" doc:"which task of its chain, from 1"`
	Activity *activity.Activity `json:"activity,omitempty"`
	Level    int                `json:"level,omitempty" doc:"of the activity, from 1"`
	Aim      string             `json:"aim,omitempty" doc:"of a probe"`
	Start    int                `json:"start" doc:"minutes from the start of the lesson"`
	Minutes  int                `json:"minutes"`
	Pinned   bool               `json:"pinned,omitempty" doc:"the teacher set its minutes"`
	Moving   bool               `json:"moving,omitempty" doc:"away from the seat"`
	Cue      string             `json:"cue,omitempty" doc:"what is said or done"`
	Schools  []reason.Label     `json:"schools" doc:"what the answers of the approach add to it"`
	Why      []reason.Reason    `json:"why"`
	Choices  []Choice           `json:"choices" doc:"what could fill it instead, best first"`
	Acts     []fact.Act         `json:"acts,omitempty" doc:"what the teacher may do to it"`
	Least    int                `json:"least" doc:"minutes that may be set"`
	Most     int                `json:"most"`

	want  want
	waits int // lessons in which it had no part
}

// A Choice is another thing for a block.
type Choice struct {
	Into  string        `json:"into" doc:"what a changed plan puts there"`
	Title string        `json:"title"`
	Why   reason.Reason `json:"why"`
}

// A Plan is a lesson to the minute.
type Plan struct {
	Minutes int             `json:"minutes"`
	Mode    string          `json:"mode" enum:",first,break,remote,pain" doc:"what kind of lesson it is; empty for a usual one"`
	Blocks  []Block         `json:"blocks"`
	LeftOut []reason.Reason `json:"leftOut" doc:"what did not fit, and why"`
	Says    []reason.Reason `json:"says" doc:"what holds for the whole lesson"`
}

// long is from how many minutes on a lesson has room for a second skill to come,
// and for an older student's study away from the page. A judgement.
const long = 40

// Longest returns the usual longest single activity at an age, in minutes, the
// first time it is met. A guide that an absorbed student stretches. Common
// practice, no source.
func Longest(age int) int {
	switch {
	case age <= 4:
		return 3
	case age <= 6:
		return 5
	case age <= 9:
		return 8
	case age <= 13:
		return 12
	}
	return 15
}

// An Ask is what a lesson is planned from.
type Ask struct {
	Standing ladder.Standing // as the lesson began
	Changes  []fact.Body     // what the teacher did to this plan since it was first made
	Graph    skill.Graph
	Bank     []activity.Activity
	Path     climb.Path
	Presumed []string // skills taken for granted from where the student began
	Ahead    []ahead.HeadStart
	Approach approach.Approach
	Plays    instrument.Profile
	Age      int // years
	Minutes  int
	Day      calendar.Date
	At       time.Time    // of the lesson
	Remote   bool         // no hands on, no playing together
	Ache     *ladder.Ache // a pain that is not cleared
	Stopped  int          // the minute at which a pain was told in this lesson; 0 for none

	// reckoned once, by ready
	needs  map[string]float64 // how much each skill is being learnt
	before []calendar.Date    // the last lessons, the last first
	heard  map[string]int     // in how many of them a piece was heard
	opened map[string]int     // and how many it opened
}

// lessonsBack is how many lessons are looked back on for what comes again too often: the
// same three weeks running bores. Common practice, no source.
const lessonsBack = 3

// ready reckons what is asked for again and again.
func (ask Ask) ready() Ask {
	ask.needs, ask.before = ask.learning(), ask.lately(lessonsBack)
	ask.heard, ask.opened = ask.hearings()
	return ask
}

// Make plans a lesson.
func Make(ask Ask) Plan {
	ask = ask.asLong().ready()
	p := Plan{Minutes: ask.Minutes, LeftOut: []reason.Reason{}, Says: []reason.Reason{}}
	p.Mode = ask.mode()
	whole := ask
	if ask.Stopped > 0 {
		whole.Ache = nil // until then it went as planned
	}
	blocks, carried := whole.atOnce(whole.changed(whole.due()))
	p.share(whole, blocks, ask.Minutes)
	if ask.first() {
		p.LeftOut = append(p.LeftOut, carried...)
	}
	if ask.Stopped > 0 {
		p.stop(ask)
	}
	p.say(ask)
	at := 0
	for i := range p.Blocks {
		p.Blocks[i].Start = at
		at += p.Blocks[i].Minutes
	}
	return p
}

// asLong takes the length that the teacher set for this lesson, where one was: it
// begins late, is cut short, or has more time.
func (ask Ask) asLong() Ask {
	ask.Minutes = Length(ask.Changes, ask.Minutes)
	return ask
}

// Length is how many minutes a lesson has by what the teacher changed in its plan; the usual ones
// where nothing was.
func Length(changes []fact.Body, usual int) int {
	for _, change := range changes {
		if c, is := change.(fact.LessonLength); is && c.Minutes > 0 {
			usual = c.Minutes
		}
	}
	return usual
}

func (ask Ask) mode() string {
	switch {
	case ask.Ache != nil:
		return "pain"
	case ask.Remote:
		return "remote"
	case ask.first():
		return "first"
	case ask.Path.Break.Light():
		return "break"
	}
	return ""
}

// say adds what holds for the whole lesson.
func (p *Plan) say(ask Ask) {
	if a := ask.Ache; a != nil {
		p.Says = append(p.Says, reason.Of("pain-stop", "side", a.Side, "where", a.Where))
	}
	p.Says = append(p.Says, ask.coming()...)
	if ask.Remote {
		p.Says = append(p.Says, reason.Of("remote-lesson"))
	}
	if p.Mode == "first" && ask.Age < sitsStill {
		p.Says = append(p.Says, reason.Of("child-teaches"))
	}
	if p.Mode == "break" {
		p.Says = append(p.Says, reason.Of("after-break", "days", strconv.Itoa(ask.Path.Break.Days)))
	}
}

// share gives the minutes to the blocks that are worth most, and says which are
// left out.
func (p *Plan) share(ask Ask, blocks []Block, minutes int) {
	wants := make([]want, len(blocks))
	for i := range blocks {
		wants[i] = blocks[i].want
	}
	given, over := divide(wants, minutes, ask.upkeepShare())
	p.Blocks = p.Blocks[:0]
	for i, b := range blocks {
		if given[i] == 0 {
			p.LeftOut = append(p.LeftOut, reason.Of("too-short-for", "kind", string(b.Kind), "title", b.Title))
			continue
		}
		b.Minutes = given[i]
		if b.Pinned && b.Minutes < b.want.best {
			b.Why = append(b.Why, reason.Of("squeezed", "asked", strconv.Itoa(b.want.best)))
		}
		if over && b.Minutes > b.want.most && !b.Pinned {
			b.Why = append(b.Why, reason.Of("stretched", "usual", strconv.Itoa(b.want.most)))
		}
		p.Blocks = append(p.Blocks, b)
	}
	p.Blocks = ask.moved(alternated(p.Blocks, ask.Age))
}
