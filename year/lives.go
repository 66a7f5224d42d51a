package year

import (
	"fmt"
	"strings"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/shelf"
	"patientladder/store"
)

// A life is a student who is lived, and what happens besides lessons and practice.
type life struct {
	name       string
	age        int
	instrument instrument.ID
	slot       calendar.Slot
	approach   approach.Approach
	home       *shelf.Home
	books      []string
	begin      string
	lacks      []string // skills that the place to begin presumes and that this student has not
	pace       float64  // lesson weeks of a usual piece, in the middle
	days       float64  // practised of each six
	feel       []string
	own        string
	events     map[int][]event // by lesson, counted from 0
	overrules  bool            // the teacher leaves games out and makes pieces longer, lesson after lesson
	unmarked   bool            // the teacher marks no points
}

// An event befalls a student about one lesson.
type event string

const (
	missed    event = "missed"    // the lesson is not given
	untold    event = "untold"    // it is not given, and nobody says so
	moved     event = "moved"     // given the day after
	remote    event = "remote"    // given from afar
	short     event = "short"     // two thirds of its minutes
	extra     event = "extra"     // another on the third day after
	swapped   event = "swapped"   // a block holds something else
	skipped   event = "skipped"   // a block is left out
	stretched event = "stretched" // a block takes longer
	pained    event = "pained"    // a pain is told at its end
	cleared   event = "cleared"
	idle      event = "idle"  // nothing is practised in the week after
	thin      event = "thin"  // one day is
	stuck     event = "stuck" // a piece in hand goes on for a long time
	struck    event = "struck"
	added     event = "added"
	changed   event = "changed"
	otherwise event = "otherwise" // a setting is changed
	dated     event = "dated"     // a piece is wanted on a day
	fault     event = "fault"     // something is seen at the instrument
)

var terms = calendar.Calendar{
	Terms: []calendar.Span{
		{Name: "autumn", From: "2026-09-07", To: "2026-12-11"},
		{Name: "spring", From: "2027-01-11", To: "2027-03-26"},
		{Name: "summer", From: "2027-04-19", To: "2027-07-09"},
		{Name: "autumn", From: "2027-09-06", To: "2027-12-10"},
		{Name: "spring", From: "2028-01-10", To: "2028-03-24"},
		{Name: "summer", From: "2028-04-17", To: "2028-07-07"},
		{Name: "autumn", From: "2028-09-04", To: "2028-12-08"},
	},
	Free: []calendar.Span{{Name: "free week", From: "2026-10-26", To: "2026-10-30"}},
}

func at(day time.Weekday, start string, minutes int) calendar.Slot {
	return calendar.Slot{Weekday: day, Start: start, Minutes: minutes}
}

func fortnightly(day time.Weekday, start string, minutes int) calendar.Slot {
	return calendar.Slot{Weekday: day, Start: start, Minutes: minutes, Rhythm: calendar.Fortnightly, Since: "2026-09-09"}
}

func twice(day time.Weekday, start string, other time.Weekday, at string, minutes int) calendar.Slot {
	return calendar.Slot{Weekday: day, Start: start, Minutes: minutes, Rhythm: calendar.Twice, Second: &calendar.TimeOfWeek{Weekday: other, Start: at}}
}

const (
	pebbles   = "Tidelines: Pebbles"
	shore     = "Tidelines: Shore"
	harbour   = "Tidelines: Harbour"
	openWater = "Tidelines: Open Water"
	folk      = "Folk tunes and others"
	ownBook   = "Two strings, four fingers"
	titleBook = "A first year on the viola"
)

var usual = []string{"easy", "fine", "fine", "hard"}

// lives are the students: other people than the demo's.
var lives = []life{
	{name: "Odo", age: 3, instrument: "piano", slot: at(time.Tuesday, "09:30", 15), books: []string{pebbles, shore}, begin: "before", pace: 2.5, days: 0.5, feel: usual,
		events: map[int][]event{4: {missed}, 9: {skipped}, 15: {short}}},
	{name: "Ada", age: 5, instrument: "piano", slot: at(time.Wednesday, "15:30", 20), books: []string{shore, folk}, pace: 2.4, days: 0.7, feel: usual,
		home:   &shelf.Home{Keys: 61, NoTouch: true, NoPedals: true, KeyTops: 70, BenchLow: 45, BenchHigh: 55, Tile: 3},
		events: map[int][]event{3: {struck}, 5: {missed}, 8: {thin}, 12: {added}, 16: {swapped}, 22: {moved}, 25: {fault}}},
	{name: "Nell", age: 6, instrument: "piano", slot: at(time.Thursday, "16:00", 30), books: []string{shore, folk}, begin: "shore-stairs", pace: 2.6, days: 0.75, feel: usual,
		events: map[int][]event{2: {fault}, 6: {short}, 10: {idle}, 14: {changed}, 18: {stretched}, 24: {extra}}},
	{name: "Jory", age: 7, instrument: "piano", slot: at(time.Monday, "15:30", 30), books: []string{shore, folk}, begin: "shore-nets", pace: 2.2, days: 0.85, feel: usual,
		approach: approach.Approach{"reading": "ear", "upkeep": "three-quarters"}, events: map[int][]event{7: {missed}, 8: {missed}, 13: {skipped}, 20: {struck}}},
	{name: "Bo", age: 8, instrument: "cello", slot: at(time.Wednesday, "16:00", 30), books: []string{"Under the Bow 1", "Songs for cello"}, begin: "bow-coil", pace: 2.8, days: 0.7, feel: usual, own: "Bow hold",
		events: map[int][]event{4: {missed}, 7: {fault}, 11: {stuck}, 17: {remote}, 21: {extra}, 27: {otherwise}}},
	{name: "Ysolde", age: 9, instrument: "violin", slot: at(time.Friday, "16:30", 30), books: []string{ownBook}, pace: 2.4, days: 0.75, feel: usual,
		events: map[int][]event{5: {swapped}, 9: {thin}, 10: {thin}, 15: {moved}, 19: {added}}},
	{name: "Cato", age: 10, instrument: "guitar", slot: at(time.Tuesday, "16:30", 30), books: []string{"Low Water", "Songs for guitar"}, begin: "low-eel", pace: 2.7, days: 0.6, feel: usual,
		approach: approach.Approach{"reading": "tablature"}, events: map[int][]event{3: {fault}, 8: {missed}, 14: {idle}, 20: {remote}}},
	{name: "Eve", age: 12, instrument: "piano", slot: at(time.Tuesday, "17:15", 45), books: []string{openWater, folk}, begin: "open-swell", lacks: []string{"slur-two", "key-signature", "two-touches"}, pace: 2.8, days: 0.65, feel: usual,
		events: map[int][]event{6: {missed}, 12: {stretched}, 18: {short}, 26: {otherwise}}},
	{name: "Cy", age: 14, instrument: "piano", slot: at(time.Monday, "17:00", 45), books: []string{harbour, folk}, begin: "harbour-quay", pace: 2.9, days: 0.75, feel: []string{"fine", "fine", "hard", "dull"},
		events: map[int][]event{3: {stuck}, 8: {dated}, 16: {missed}, 23: {swapped}, 29: {struck}}},
	{name: "Luz", age: 15, instrument: "guitar", slot: at(time.Friday, "17:30", 45), books: []string{"Low Water", "Songs for guitar"}, begin: "low-sluice", pace: 3.2, days: 0.17, feel: []string{"easy", "fine"},
		events: map[int][]event{5: {missed}, 9: {remote}, 17: {moved}}},
	{name: "Dag", age: 35, instrument: "piano", slot: at(time.Thursday, "18:00", 45), books: []string{shore, folk}, pace: 1.9, days: 0.6, feel: usual,
		events: map[int][]event{7: {missed}, 11: {added}, 15: {idle}, 16: {idle}, 24: {otherwise}}},
	{name: "Orla", age: 16, instrument: "piano", slot: fortnightly(time.Wednesday, "17:00", 45), books: []string{harbour, folk}, begin: "harbour-quay", pace: 2.2, days: 0.6, feel: usual,
		events: map[int][]event{2: {missed}, 5: {untold}, 9: {moved}}},
	{name: "Tove", age: 7, instrument: "cello", slot: twice(time.Tuesday, "15:00", time.Friday, "15:30", 45), books: []string{"Under the Bow 1", "Songs for cello"}, begin: "bow-coil", pace: 3.4, days: 0.8, feel: usual,
		events: map[int][]event{4: {missed}, 11: {untold}}},
	{name: "Siv", age: 10, instrument: "piano", slot: at(time.Monday, "16:00", 20), books: []string{shore, folk}, pace: 2.6, days: 0.9, feel: usual,
		events: map[int][]event{6: {missed}, 13: {moved}}},
	{name: "Ivo", age: 9, instrument: "viola", slot: at(time.Thursday, "16:30", 30), books: []string{titleBook}, pace: 2.6, days: 0.6, feel: usual,
		events: map[int][]event{4: {missed}, 5: {missed}, 6: {missed}, 12: {extra}}},
	{name: "Runa", age: 52, instrument: "piano", slot: at(time.Monday, "18:30", 45), books: []string{harbour, folk}, begin: "harbour-wall", pace: 2.8, days: 0.8, feel: usual,
		events: map[int][]event{7: {pained}, 14: {cleared}, 20: {pained}, 22: {cleared}}},
	{name: "Veit", age: 12, instrument: "piano", slot: at(time.Friday, "16:00", 45), books: []string{openWater, folk}, begin: "open-swell", lacks: []string{"slur-two"}, pace: 2.4, days: 0.7, feel: usual, overrules: true,
		events: map[int][]event{8: {missed}}},
	{name: "Gil", age: 70, instrument: "cello", slot: at(time.Tuesday, "11:00", 45), books: []string{"Under the Bow 1", "Songs for cello"}, pace: 2.4, days: 0, feel: usual, unmarked: true,
		events: map[int][]event{5: {untold}, 6: {untold}, 15: {missed}}},
	{name: "Maud", age: 66, instrument: "piano", slot: at(time.Saturday, "10:00", 60), books: []string{harbour, folk}, begin: "harbour-wall", pace: 2.7, days: 0.7, feel: usual,
		events: map[int][]event{9: {pained}, 11: {cleared}, 19: {changed}, 25: {missed}}},
}

// violin is a book of our own for an instrument that the shelf has none for: short tunes
// on the open strings and the first fingers, a scale, and a deck of cards.
func violin() []store.NewItem {
	tune := []string{"A A E E | A A E2 | E E A A | A4", "A A B B | A2 E2 | B B A A | A4", "A B c B | A B A2 | c B A B | A4", "A B c d | d c B A | A c B d | A4",
		"E E F F | E2 A2 | F F E E | E4", "A B c d | e2 e2 | d c B A | A4", "e d c B | A2 A2 | B c d B | A4", "A c B d | c e d2 | e d c B | A4",
		"A2 B2 | c2 d2 | e d c B | A4 | B2 c2 | d2 e2 | d c B A | A4", "e e d d | c c B2 | d d c c | B B A2", "A A c c | e2 c2 | d d B B | A4", "E A c e | d B A2 | e c A E | A4"}
	names := []string{"Ferry Bell", "Two Gulls Again", "Plank and Rope", "Down the Steps", "Low Lamp", "Up and Over", "Coming In", "Wet Decks", "The Long Quay", "Tar and Twine", "Three Buoys", "Last Boat"}
	brings := [][]string{{"open-strings"}, {"first-finger"}, {"block-fingers"}, {"stepping-fingers"}, {"string-levels"}}
	var out []store.NewItem
	add := func(id, title string, strand shelf.Strand, n int) *shelf.Item {
		out = append(out, store.NewItem{Item: shelf.Item{ID: id, Title: title, Instrument: "violin", Strand: strand, Book: ownBook, Unit: fmt.Sprintf("%d", 1+n/4),
			Points: shelf.PointsOf("Tone", "Tuning", "Rhythm")}})
		return &out[len(out)-1].Item
	}
	for i, name := range names {
		it := add(fmt.Sprintf("own-%d", i+1), name, shelf.Book, i)
		if i < len(brings) {
			it.Brings = brings[i]
		}
		abc := fmt.Sprintf("X:1\nT:%s\nM:4/4\nL:1/4\nQ:1/4=80\nK:A\n%s |]\n", name, strings.TrimSpace(tune[i]))
		out[len(out)-1].File = &store.ScoreFile{Name: it.ID + ".abc", Data: []byte(abc)}
		if i%4 == 3 {
			t := add(fmt.Sprintf("own-t%d", 1+i/4), []string{"Long bows", "A scale, one octave", "Crossing strings"}[i/4], shelf.Technique, i)
			t.Exercise = []string{"bows", "scale A", "pattern A"}[i/4]
			r := add(fmt.Sprintf("own-r%d", 1+i/4), []string{"Names of the strings", "Steps from an open string", "Half or whole"}[i/4], shelf.Reading, i)
			r.Cards = []string{"strings", "steps", "half-whole"}[i/4]
		}
	}
	return out
}
