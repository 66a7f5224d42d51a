package demo

import (
	"strings"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/shelf"
	"patientladder/mail/mailbox"
	"patientladder/studio/roster"
)

// A lane is a student's path through one strand: pieces secured so far, the
// current one with the weeks it has been taught and the points met, and what
// is placed above it. It runs along the shelf from an item, or is listed.
type lane struct {
	strand shelf.Strand
	from   string
	items  []string // instead of from
	secure int
	ahead  int
	weeks  int // of the current rung
	met    int
	spot   string // a spot of the current rung, still open
}

// A student as the model lives one.
type student struct {
	first, family string
	year, month   int
	instrument    instrument.ID
	slot          calendar.Slot
	approach      approach.Approach
	home          *shelf.Home
	books         []string
	begin         string
	since         calendar.Date // of the first lesson; empty for the summer term's
	days          float64       // practised of each six
	feel          []string
	own           string   // a standing point
	notes         []string // told in the last lesson
	taste         shelf.Taste
	lanes         []lane
	body          [3]float64  // stature, elbow above the seat, lower leg, in cm; nought for what was not measured
	sees          []string    // faults seen in the last lesson
	probes        []string    // passed in the first meetings
	nearly        []string    // not quite, then
	after         []fact.Body // told after the last lesson; a Rung names an item
	slips         string      // item whose points open again
	thumb         []float64   // in the last lessons a roll is played in: how strong the thumb is over the others
}

func at(day time.Weekday, start string, minutes int) calendar.Slot {
	return calendar.Slot{Weekday: day, Start: start, Minutes: minutes}
}

const (
	mon = time.Monday
	tue = time.Tuesday
	wed = time.Wednesday
	thu = time.Thursday
	fri = time.Friday
	sat = time.Saturday
)

const (
	pebbles   = "Tidelines: Pebbles"
	shore     = "Tidelines: Shore"
	harbour   = "Tidelines: Harbour"
	openWater = "Tidelines: Open Water"
	bow1      = "Under the Bow 1"
	bow2      = "Under the Bow 2"
	lowWater  = "Low Water"
	folk      = "Folk tunes and others"
	celloFolk = "Songs for cello"
	guitarOwn = "Songs for guitar"
)

var (
	book, technique = shelf.Book, shelf.Technique
	reading, rep    = shelf.Reading, shelf.Repertoire
	usualFeel       = []string{"easy", "fine", "fine", "hard"}
)

var students = []student{
	{first: "Pip", family: "Navarro", year: 2023, month: 9, instrument: "piano", slot: at(sat, "09:30", 15), since: "2026-11-21",
		home: &shelf.Home{Keys: 37, NoTouch: true, NoPedals: true, KeyTops: 70, BenchLow: 45, BenchHigh: 45, Tile: 3}, books: []string{pebbles}, begin: "before"},
	{first: "Wren", family: "Adeyemi", year: 2022, month: 4, instrument: "piano", slot: at(wed, "15:20", 15), body: [3]float64{104, 16, 25}, probes: []string{"left-right", "high-low", "higher-lower"}, nearly: []string{"steady-beat", "key-groups"}, since: "2026-09-09", days: 0.5, feel: usualFeel,
		home: &shelf.Home{KeyTops: 73, BenchLow: 47, BenchHigh: 56, Tile: 3}, books: []string{pebbles}, begin: "before", notes: []string{"Seat tiles and the foot platform again; the beat runs away after four."}},
	{first: "Tobias", family: "Lindqvist-Roy", year: 2020, month: 5, instrument: "piano", slot: at(wed, "16:40", 30), body: [3]float64{118, 18, 30}, sees: []string{"joints-cave", "hand-drifts"}, days: 0.7, feel: usualFeel, books: []string{shore, folk},
		lanes: []lane{
			{strand: book, from: "shore-rope-walk", secure: 7, ahead: 5, weeks: 2, met: 2, spot: "bar 4"},
			{strand: technique, from: "shore-t1", secure: 1, ahead: 1, weeks: 3, met: 1},
			{strand: reading, from: "shore-r1", secure: 1, ahead: 1, weeks: 2, met: 1},
			{strand: rep, items: []string{"folk-clair", "folk-kookaburra", "folk-jacques"}, secure: 1, weeks: 1},
		}},
	{first: "Saoirse", family: "Mwangi", year: 2019, month: 2, instrument: "piano", slot: at(thu, "15:30", 30), body: [3]float64{123, 0, 0}, days: 0.85, feel: []string{"easy", "fine", "fine"},
		approach: approach.Approach{"reading": "ear", "upkeep": "three-quarters"}, books: []string{shore, folk}, taste: shelf.Familiar,
		lanes: []lane{
			{strand: book, from: "shore-rope-walk", secure: 15, ahead: 4, weeks: 1, met: 1},
			{strand: technique, from: "shore-t1", secure: 2, ahead: 1, weeks: 2, met: 1},
			{strand: reading, from: "shore-r1", secure: 1, ahead: 1, weeks: 4},
			{strand: rep, items: []string{"folk-clair", "folk-kookaburra", "folk-cuckoo", "folk-jacques", "folk-london", "folk-barbara"}, secure: 4, weeks: 1, met: 1},
		}},
	{first: "Emil", family: "Castellano", year: 2018, month: 3, instrument: "cello", slot: at(wed, "16:00", 30), body: [3]float64{128, 0, 33}, sees: []string{"thumb-squeezes", "bow-drifts"}, days: 0.85, feel: usualFeel, own: "Bow hold",
		approach: approach.Approach{"reading": "ear", "upkeep": "three-quarters"}, books: []string{bow1, celloFolk}, begin: "bow-open",
		lanes: []lane{
			{strand: book, items: []string{"bow-open", "bow-four", "bow-strings", "bow-march", "bow-coil", "bow-gull", "bow-slack", "bow-lamp", "bow-slipway", "bow-half", "bow-reel", "bow-jig", "bow-fog"}, secure: 7, weeks: 3, met: 3, spot: "bar 11"},
			{strand: technique, items: []string{"bow-t1", "bow-t2", "bow-t3", "bow-t4"}, secure: 1, weeks: 2, met: 1},
			{strand: reading, from: "bow-r1", secure: 1, ahead: 1, weeks: 1},
			{strand: rep, items: []string{"cello-jacques", "folk-skye", "cello-ode"}, secure: 1, weeks: 3, met: 2, spot: "bar 5"},
		},
		after: []fact.Body{fact.Prepared{Skill: "reach-back", Step: 1}}},
	{first: "Priya", family: "Halvorsen", year: 2017, month: 2, instrument: "piano", slot: at(mon, "16:00", 30), days: 0.8, feel: usualFeel, books: []string{harbour, folk}, begin: "shore-half-tide",
		lanes: []lane{
			{strand: book, from: "shore-slow-tide", secure: 9, ahead: 5, weeks: 2, met: 2, spot: "bars 5 to 6"},
			{strand: technique, items: []string{"shore-t5", "harbour-t1", "harbour-scales", "harbour-t2"}, secure: 2, weeks: 10, met: 1},
			{strand: reading, from: "shore-r5", secure: 2, ahead: 1, weeks: 1},
			{strand: rep, items: []string{"folk-jacques", "folk-sakura", "folk-scarborough"}, secure: 1, weeks: 3, met: 2},
		}},
	{first: "Nikolai", family: "Abara", year: 2016, month: 1, instrument: "guitar", slot: at(tue, "16:30", 30), sees: []string{"wrist-sideways", "shoulders-up"}, days: 0.6, feel: usualFeel, own: "Thumb under the fingers",
		approach: approach.Approach{"reading": "tablature"}, books: []string{lowWater, guitarOwn}, taste: shelf.Lively, begin: "low-three",
		notes: []string{"The pattern rushes at the change; the thumb covers the tune."},
		lanes: []lane{
			{strand: book, from: "low-three", secure: 9, ahead: 5, weeks: 3, met: 1, spot: "bar 3"},
			{strand: technique, from: "low-t1", secure: 1, ahead: 1, weeks: 3, met: 1},
			{strand: reading, from: "low-r1", secure: 1, ahead: 1, weeks: 3},
			{strand: rep, items: []string{"guitar-jacques", "guitar-romance"}, secure: 0, weeks: 4, met: 1},
		}, slips: "low-quiet", thumb: []float64{24, 17, 11}},
	{first: "Mei-Lin", family: "Fraser", year: 2015, month: 6, instrument: "cello", slot: at(fri, "16:00", 45), sees: []string{"thumb-squeezes"}, days: 0.75, feel: usualFeel, own: "Left thumb soft",
		books: []string{bow2, celloFolk}, begin: "bow2-slow",
		lanes: []lane{
			{strand: book, from: "bow2-slow", secure: 11, ahead: 6, weeks: 3, met: 2, spot: "bar 7"},
			{strand: technique, from: "bow2-t1", secure: 2, ahead: 1, weeks: 2, met: 1},
			{strand: reading, from: "bow2-r1", secure: 2, ahead: 1, weeks: 2},
			{strand: rep, items: []string{"cello-ash", "cello-greensleeves", "cello-marcello", "cello-handel"}, secure: 2, weeks: 4, met: 2},
		},
		after: []fact.Body{fact.Prepared{Skill: "double-notes", Step: 1}}},
	{first: "Idris", family: "Kowalczyk", year: 2014, month: 8, instrument: "piano", slot: at(tue, "17:15", 45), since: "2026-09-08", days: 0.6, feel: usualFeel,
		books: []string{harbour, folk}, begin: "harbour-quay", notes: []string{"Plays by the fingers he was given; counts after the fact."},
		lanes: []lane{
			{strand: book, from: "harbour-quay", secure: 3, ahead: 5, weeks: 2, met: 1},
			{strand: technique, items: []string{"harbour-t1", "harbour-t2", "harbour-scales"}, secure: 1, weeks: 2},
			{strand: reading, from: "harbour-r1", secure: 1, ahead: 2, weeks: 3},
			{strand: rep, items: []string{"folk-drunken", "comp-haydn"}, secure: 0, weeks: 4, met: 2},
		}},
	{first: "Freya", family: "Onwudiwe", year: 2013, month: 3, instrument: "piano", slot: at(thu, "16:30", 45), days: 0.8, feel: usualFeel, books: []string{openWater, folk}, begin: "open-swell", taste: shelf.Lyrical,
		lanes: []lane{
			{strand: book, from: "open-swell", secure: 9, ahead: 6, weeks: 2, met: 2},
			{strand: technique, from: "open-t1", secure: 1, ahead: 2, weeks: 3, met: 1},
			{strand: reading, from: "open-r1", secure: 1, ahead: 2, weeks: 2},
			{strand: rep, items: []string{"comp-purcell", "comp-burg-arab", "comp-chopin-prelude", "comp-schumann-melody"}, secure: 2, weeks: 5, met: 2},
		}},
	{first: "Luca", family: "Petrosyan", year: 2012, month: 5, instrument: "piano", slot: at(mon, "17:00", 45), sees: []string{"shoulders-up"}, days: 0.95, feel: []string{"dull", "dull", "fine", "dull", "hard"},
		books: []string{openWater, folk}, begin: "open-swell", taste: shelf.Lively, slips: "open-glass",
		lanes: []lane{
			{strand: book, from: "open-swell", secure: 3, ahead: 5, weeks: 10, met: 3, spot: "bars 5 to 6"},
			{strand: technique, from: "open-t1", secure: 0, ahead: 2, weeks: 4, met: 1},
			{strand: reading, from: "open-r1", secure: 1, ahead: 1, weeks: 3},
			{strand: rep, items: []string{"folk-drunken", "comp-burg-arab", "folk-korobeiniki"}, secure: 1, weeks: 4, met: 2},
		}},
	{first: "Zuri", family: "Haddad", year: 2011, month: 4, instrument: "guitar", slot: at(fri, "17:00", 45), days: 0.33, feel: []string{"easy", "easy", "fine"}, books: []string{lowWater, guitarOwn}, begin: "low-six", taste: shelf.Lively,
		lanes: []lane{
			{strand: book, from: "low-sluice", secure: 6, ahead: 5, weeks: 3, met: 2},
			{strand: technique, from: "low-t3", secure: 0, ahead: 1, weeks: 5, met: 1},
			{strand: reading, from: "low-r3", secure: 0, ahead: 1, weeks: 4},
			{strand: rep, items: []string{"guitar-romance", "guitar-malaguena", "guitar-greensleeves"}, secure: 1, weeks: 4, met: 2},
		}},
	{first: "Anselm", family: "Boateng", year: 1992, month: 1, instrument: "piano", slot: at(wed, "14:00", 45), days: 0.6, feel: usualFeel, books: []string{shore, folk},
		lanes: []lane{
			{strand: book, from: "shore-rope-walk", secure: 13, ahead: 5, weeks: 2, met: 2},
			{strand: technique, from: "shore-t1", secure: 2, ahead: 1, weeks: 3, met: 1},
			{strand: reading, from: "shore-r1", secure: 2, ahead: 1, weeks: 2},
			{strand: rep, items: []string{"folk-clair", "folk-michael", "folk-aura"}, secure: 1, weeks: 3, met: 2},
		}},
	{first: "Hyacinth", family: "Moreau", year: 1980, month: 3, instrument: "cello", slot: at(mon, "11:00", 60), days: 0.7, feel: usualFeel, books: []string{bow2, celloFolk}, begin: "bow2-slow", taste: shelf.Lyrical,
		lanes: []lane{
			{strand: book, from: "bow2-slow", secure: 7, ahead: 6, weeks: 3, met: 2},
			{strand: technique, from: "bow2-t1", secure: 1, ahead: 2, weeks: 3, met: 1},
			{strand: reading, from: "bow2-r1", secure: 1, ahead: 1, weeks: 2},
			{strand: rep, items: []string{"cello-ode", "cello-water", "cello-ash", "cello-londonderry"}, secure: 1, weeks: 2, met: 1},
		},
		after: []fact.Body{fact.TargetSet{Rung: "cello-londonderry", Day: "2027-03-20"}, fact.TargetSet{Rung: "cello-ode", Day: "2026-12-05"}}},
	{first: "Walter", family: "Isaksen", year: 1959, month: 7, instrument: "piano", slot: at(sat, "10:00", 60), body: [3]float64{178, 26, 47}, days: 0.7, feel: usualFeel, books: []string{harbour, folk}, begin: "harbour-wall",
		approach: approach.Approach{"new-skills": "one", "slope": "graded"}, taste: shelf.Lyrical,
		notes: []string{"Right wrist: five minutes in each half hour off, nothing loud and fast. The clinic sees him again in January."},
		lanes: []lane{
			{strand: book, from: "harbour-wall", secure: 6, ahead: 0, weeks: 3, met: 2},
			{strand: technique, from: "harbour-t1", secure: 1, ahead: 0, weeks: 3, met: 1},
			{strand: reading, from: "harbour-r1", secure: 1, ahead: 0, weeks: 2},
			{strand: rep, items: []string{"folk-suo", "folk-ash", "folk-arirang"}, secure: 2, weeks: 4, met: 2},
		}},
}

func (s student) card(id string) roster.NewStudent {
	return roster.NewStudent{ID: id, FirstName: s.first, FamilyName: s.family, BirthYear: s.year, BirthMonth: s.month, Instrument: s.instrument, Slot: s.slot,
		Approach: s.approach, Home: s.home, Contact: s.contact()}
}

// contact is an address in the local mailbox. Two show what may go wrong out in the
// world: one family's address is refused, one family's mailbox is full.
func (s student) contact() string {
	at := "homes.example"
	switch s.first {
	case "Nikolai":
		at = mailbox.Refused
	case "Zuri":
		at = mailbox.Bounced
	}
	return strings.ToLower(s.family) + "@" + at
}
