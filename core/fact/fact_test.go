package fact

import (
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	now  = time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
	some = "01KTESTFACT000000000000001"
)

func of18(b Body) Fact { return Fact{ID: some, Student: some, At: now, Body: b} }

// What the log takes and what it does not, by form.
func TestTheFormOfFacts(t *testing.T) {
	for _, c := range []struct {
		name string
		body Body
		says string // empty where it is taken
	}{
		{"a try granted", FootholdTried{Rung: some, Outcome: "granted"}, ""},
		{"a try of the whole", FootholdTried{Rung: some, Outcome: "not-yet", Note: "thumb late"}, ""},
		{"a try that ends otherwise", FootholdTried{Rung: some, Outcome: "maybe"}, `foothold tried: outcome "maybe" is not one of granted, not-yet`},
		{"a try of nothing", FootholdTried{Outcome: "granted"}, "rung is missing"},
		{"a lane that is none", RungAdded{Item: "lamp", Strand: "garden"}, "is not one of book"},
		{"a note of nothing but blanks", Noted{Text: "  "}, "text is missing"},
		{"a note of 2000 characters", Noted{Text: strings.Repeat("x", 2000)}, ""},
		{"a note of 2001", Noted{Text: strings.Repeat("x", 2001)}, "longer than 2000"},
		{"a note of two lines", Noted{Text: "one\ntwo"}, ""},
		{"a note that rings the bell", Noted{Text: "one\a"}, "cannot be written"},
		{"a note that is no text", Noted{Text: "\xff"}, "cannot be written"},
		{"a goal of none", SpotNoted{Rung: some, Where: "bar 3"}, "goal 0 is not from 1 to 100"},
		{"a goal of a hundred", SpotNoted{Rung: some, Where: "bar 3", Goal: 100}, ""},
		{"a goal of more", SpotNoted{Rung: some, Where: "bar 3", Goal: 101}, "is not from 1 to 100"},
		{"a run of none", SpotDrilled{Rung: some, Spot: some}, "run 0"},
		{"a day that is none", LessonClosed{Day: "yesterday"}, "not a day such as"},
		{"a day of last year's lesson", LessonClosed{Day: "2025-10-14"}, ""},
		{"a day of a lesson longer ago", LessonClosed{Day: "2025-10-13"}, "lies too far from 2026-11-18"},
		{"practice of tomorrow: a clock a day ahead", Practised{Day: "2026-11-19"}, ""},
		{"practice of the day after", Practised{Day: "2026-11-20"}, "lies too far"},
		{"a target of two months ago", TargetSet{Rung: some, Day: "2026-09-19"}, ""},
		{"a target of 1800", TargetSet{Rung: some, Day: "1800-01-01"}, "outside the years"},
		{"a target of longer ago", TargetSet{Rung: some, Day: "2026-09-18"}, "lies too far"},
		{"a target in five years", TargetSet{Rung: some, Day: "2031-11-01"}, ""},
		{"a lesson moved nowhere", LessonMoved{Day: "2026-11-18"}, "to is missing"},
		{"a lesson moved to noon", LessonMoved{Day: "2026-11-18", To: "2026-11-19", Start: "12:00"}, ""},
		{"a lesson moved to a word", LessonMoved{Day: "2026-11-18", To: "2026-11-19", Start: "noon"}, "not a time of day such as 16:00"},
		{"a lesson at 24:00", LessonExtra{Day: "2026-11-18", Start: "24:00"}, "not a time of day"},
		{"a pause of a day", Paused{From: "2026-11-20", Until: "2026-11-20"}, ""},
		{"a pause without an end", Paused{From: "2026-11-20"}, ""},
		{"a pause that ends before it begins", Paused{From: "2026-11-20", Until: "2026-11-19"}, "paused: it ends before it begins"},
		{"somebody leaves in two years", Left{Day: "2028-11-20"}, "lies too far"},
		{"a stature", SeatMeasured{Stature: 131.5}, ""},
		{"a stature of 900 cm", SeatMeasured{Stature: 900}, "is not from 0 to 300"},
		{"nothing measured", SeatMeasured{}, "nothing is measured"},
		{"a pain of the head", Pained{Side: "head"}, "not one of right, left, both"},
		{"a purple mood", MoodSeen{Mood: "purple"}, "not one of bright"},
		{"a game that went fine", ActivityDone{Activity: "palm-taps", Outcome: "fine"}, "not one of pass, nearly"},
		{"a lesson that flowed", LessonRated{Day: "2026-11-18", Rating: "flowed"}, ""},
		{"a lesson of five stars", LessonRated{Day: "2026-11-18", Rating: "5"}, "not one of flowed, mixed, uphill"},
		{"a plan's block of no minutes", BlockTimed{Day: "2026-11-18", Block: "close"}, "minutes 0"},
		{"every day", DaysSet{Weekdays: []int{}}, ""},
		{"Sunday and Saturday", DaysSet{Weekdays: []int{0, 6}}, ""},
		{"an eighth day", DaysSet{Weekdays: []int{7}}, "from 0 for Sunday to 6"},
		{"Monday twice", DaysSet{Weekdays: []int{1, 1}}, "each once"},
		{"a treat that counts money", TreatSet{Name: "Chips", Counts: "money", Goal: 5}, "not one of footholds, days"},
		{"a take", PlayedIn{Asked: "roll pima", From: "keys", Notes: 24, Figure: "strong", Hand: "right", Finger: "p", Size: 20, Fingers: []Touch{{Hand: "right", Finger: "p", Heft: 20}}}, ""},
		{"a take of nothing", PlayedIn{Asked: "roll pima", From: "keys", Figure: "even"}, "notes 0"},
		{"a take from the moon", PlayedIn{Asked: "roll pima", From: "moon", Notes: 1, Figure: "even"}, "not one of keys"},
		{"a finger without a name", PlayedIn{Asked: "x", From: "keys", Notes: 1, Figure: "even", Fingers: []Touch{{Heft: 1}}}, "figures of a finger"},
		{"a finger stronger than any", PlayedIn{Asked: "x", From: "keys", Notes: 1, Figure: "even", Fingers: []Touch{{Finger: "1", Heft: 128}}}, "figures of a finger"},
		{"a round of echoes", Echoed{Skill: "halves", Level: 1, Asked: 3, Right: 3}, ""},
		{"more right than asked", Echoed{Skill: "halves", Level: 1, Asked: 3, Right: 4}, "more are right"},
		{"a purple day", Practised{Day: "2026-11-18", Felt: "purple"}, "not one of fun"},
	} {
		err := of18(c.body).Check(now)
		if c.says == "" {
			assert.NoError(t, err, c.name)
		} else {
			assert.ErrorContains(t, err, c.says, c.name)
		}
	}
}

func TestTheTimesOfFacts(t *testing.T) {
	for _, c := range []struct {
		name string
		at   time.Time
		ok   bool
	}{
		{"now", now, true},
		{"a clock 24 hours ahead", now.Add(24 * time.Hour), true},
		{"a second more", now.Add(24*time.Hour + time.Second), false},
		{"thirty years ago", now.AddDate(-30, 0, 0), true},
		{"before that", now.AddDate(-30, 0, 0).Add(-time.Second), false},
		{"never", time.Time{}, false},
	} {
		f := of18(PainCleared{})
		f.At = c.at
		assert.Equal(t, c.ok, f.Check(now) == nil, c.name)
	}
	for id, ok := range map[string]bool{some: true, strings.Repeat(" ", 26): false, "1": false, "🎻🎻🎻🎻🎻🎻12": false, strings.ToLower(some): false,
		"8" + some[1:]: false, some[:25] + "U": false} {
		f := of18(PainCleared{})
		f.ID = id
		assert.Equal(t, ok, f.Check(now) == nil, "%q", id)
	}
	assert.Error(t, of18(nil).Check(now))
}

// Every kind goes out and comes back the same, alone, in a fact and in a list, and
// has a name of its own; its tags are ones that the check knows.
func TestEveryKindGoesOutAndComesBack(t *testing.T) {
	names := map[Kind]bool{}
	refs := map[string]bool{"rung": true, "spot": true, "card": true, "point": true, "item": true, "exercise": true, "book": true, "skill": true, "fault": true, "probe": true, "activity": true, "school": true, "question": true, "document": true, "fact": true}
	var all Bodies
	for _, typ := range Types() {
		v := reflect.New(typ).Elem()
		for i := range typ.NumField() {
			tag := typ.Field(i).Tag
			if ref := tag.Get("ref"); ref != "" {
				assert.True(t, refs[ref], "%s: %s", typ, ref)
			}
			if when := tag.Get("when"); when != "" {
				assert.Contains(t, spans, when, typ)
			}
			switch f := v.Field(i); f.Kind() {
			case reflect.String:
				f.SetString("2026-11-18")
				assert.True(t, f.Type() == dateType || tag.Get("maxLength") != "" || tag.Get("enum") != "" || tag.Get("pattern") != "", "%s.%s has a bound", typ, typ.Field(i).Name)
				assert.Equal(t, f.Type() == dateType, tag.Get("when") != "", "%s.%s: a day says where it lies", typ, typ.Field(i).Name)
			case reflect.Int:
				f.SetInt(2)
				assert.NotEmpty(t, tag.Get("maximum"), "%s.%s has a bound", typ, typ.Field(i).Name)
			case reflect.Float64:
				f.SetFloat(2.5)
			case reflect.Bool:
				f.SetBool(true)
			case reflect.Slice:
				f.Set(reflect.MakeSlice(f.Type(), 2, 2))
				assert.NotEmpty(t, tag.Get("maxItems"), "%s.%s has a bound", typ, typ.Field(i).Name)
			default:
				t.Fatalf("%s holds a %s", typ, f.Kind())
			}
		}
		body := v.Interface().(Body)
		assert.False(t, names[body.Kind()], "%s is there twice", body.Kind())
		names[body.Kind()] = true
		all = append(all, body)
		raw, err := json.Marshal(Fact{ID: some, Student: some, At: now, By: Family, Body: body})
		require.NoError(t, err)
		var back Fact
		require.NoError(t, json.Unmarshal(raw, &back))
		assert.Equal(t, Fact{ID: some, Student: some, At: now, By: Family, Body: body}, back)
	}
	raw, err := json.Marshal(all)
	require.NoError(t, err)
	var back Bodies
	require.NoError(t, json.Unmarshal(raw, &back))
	assert.Equal(t, all, back)
	raw, err = json.Marshal(Bodies(nil))
	require.NoError(t, err)
	assert.Equal(t, "[]", string(raw))
	_, err = Decode([]byte(`{"kind":"danced"}`))
	assert.ErrorContains(t, err, `"danced" is not a kind of fact`)
	_, err = Lift("noted", 3, []byte(`{}`))
	assert.ErrorContains(t, err, "this program knows forms up to 2")
}

func TestWhatAFactRefersTo(t *testing.T) {
	assert.Equal(t, []Ref{{"rung", "r"}, {"point", "tone"}}, Refs(PointMarked{Rung: "r", Point: "tone", State: Met}))
	assert.Equal(t, []Ref{{"rung", "r"}}, Refs(SelfJudged{Rung: "r", Says: "yes"}), "what is empty refers to nothing")
	assert.Empty(t, Refs(PainCleared{}))
}

// Kinds of the first form whose fields meant several things, and what they are today.
func TestTheFirstForm(t *testing.T) {
	for _, c := range []struct {
		raw  string
		want Body
	}{
		{`{"kind":"point_met","rung":"r","point":"tone"}`, PointMarked{"r", "tone", Met}},
		{`{"kind":"point_open","rung":"r","point":"tone"}`, PointMarked{"r", "tone", Open}},
		{`{"kind":"practised","day":"2026-11-18","minutes":12,"text":"fun"}`, Practised{"2026-11-18", 12, "fun"}},
		{`{"kind":"practised","day":"2026-11-18","minutes":3,"rung":"r"}`, Played{"r", "2026-11-18", 3}},
		{`{"kind":"book_chosen","text":"Shore","item":"walk"}`, BookChosen{"Shore", "walk"}},
		{`{"kind":"lesson_remote","day":"2026-11-18","outcome":"yes"}`, LessonRemote{"2026-11-18", true}},
		{`{"kind":"lesson_remote","day":"2026-11-18","outcome":"no"}`, LessonRemote{"2026-11-18", false}},
		{`{"kind":"lesson_remote","day":"2026-11-18"}`, LessonRemote{"2026-11-18", true}},
		{`{"kind":"plan_changed","day":"2026-11-18","text":"close","outcome":"minutes","minutes":4}`, BlockTimed{Day: "2026-11-18", Block: "close", Minutes: 4}},
		{`{"kind":"plan_changed","day":"2026-11-18","text":"close","outcome":"swap","into":"x"}`, BlockSwapped{"2026-11-18", "close", "x"}},
		{`{"kind":"plan_changed","day":"2026-11-18","text":"close","outcome":"after","after":"x"}`, BlockMoved{"2026-11-18", "close", "x"}},
		{`{"kind":"plan_changed","day":"2026-11-18","text":"close","outcome":"drop"}`, BlockDropped{Day: "2026-11-18", Block: "close"}},
		{`{"kind":"plan_changed","day":"2026-11-18","text":"game","outcome":"add"}`, BlockAdded{"2026-11-18", "game"}},
		{`{"kind":"plan_changed","day":"2026-11-18","text":"lesson","outcome":"length","minutes":20}`, LessonLength{"2026-11-18", 20}},
		{`{"kind":"seat_measured","measures":{"stature":131.5,"lowerLeg":33}}`, SeatMeasured{Stature: 131.5, LowerLeg: 33}},
		{`{"kind":"days_set","text":"0 6 6 7 x 12 3","minutes":15}`, DaysSet{[]int{0, 6, 3}, 15}},
		{`{"kind":"days_set","text":""}`, DaysSet{[]int{}, 0}},
		{`{"kind":"question_done","into":"q"}`, QuestionAnswered{"q"}},
		{`{"kind":"ticked","day":"2026-11-18","text":"now r","rung":"r"}`, Ticked{"2026-11-18", "", "now r", "r"}},
		{`{"kind":"treat_set","text":"Chips","outcome":"days","count":5}`, TreatSet{"Chips", KeptDays, 5}},
		{`{"kind":"activity_done","text":"palm-taps","outcome":"pass","count":2,"point":"left-right"}`, ActivityDone{"palm-taps", Pass, 2, "left-right"}},
	} {
		got, err := Lift("", 1, []byte(c.raw))
		require.NoError(t, err, c.raw)
		assert.Equal(t, c.want, got, c.raw)
	}
	_, err := Lift("", 1, []byte(`{"kind":"danced"}`))
	assert.ErrorContains(t, err, "was never a kind of fact")
	_, err = Lift("", 1, []byte(`{`))
	assert.Error(t, err)
	got, err := Lift("noted", Version, []byte(`{"kind":"noted","text":"x"}`))
	require.NoError(t, err)
	assert.Equal(t, Noted{Text: "x"}, got)
	for body, by := range map[Body]Author{Ticked{}: Family, Practised{}: Family, Tripped{}: Family, QuestionAsked{}: Family, TreatSet{}: Family, TreatDropped{}: Family, Noted{}: Teacher, Played{}: Teacher} {
		assert.Equal(t, by, FirstAuthor(body), body.Kind())
	}
}

// The figures of a take, finger by finger: a finger has a name of four letters at most and one of two hands, or none.
func TestFingersOfATake(t *testing.T) {
	for _, c := range []struct {
		is    Touch
		taken bool
	}{
		{Touch{Finger: "1"}, true}, {Touch{Finger: "left"}, true}, {Touch{Finger: "thumb"}, false}, {Touch{}, false}, {Touch{Finger: " "}, false},
		{Touch{Finger: "1", Hand: "left"}, true}, {Touch{Finger: "1", Hand: "right"}, true}, {Touch{Finger: "1", Hand: "both"}, false},
		{Touch{Finger: "1", Late: 60000}, true}, {Touch{Finger: "1", Late: -60001}, false}, {Touch{Finger: "1", Heft: -127}, true}, {Touch{Finger: "1", Heft: 127.5}, false},
	} {
		assert.Equal(t, c.taken, PlayedIn{Fingers: []Touch{c.is}}.check() == nil, "%+v", c.is)
	}
}

// A line that is added has something on it; which line a fact names, and of which sheet.
func TestLinesOfSheets(t *testing.T) {
	for _, b := range []LineAdded{{Text: "a"}, {Item: "a"}, {Exercise: "a"}, {Game: "a"}} {
		assert.True(t, b.Says(), "%+v", b)
	}
	assert.False(t, LineAdded{Day: "2026-11-18"}.Says())
	for _, c := range []struct {
		body      Body
		doc, line string
		ok        bool
	}{
		{Ticked{Document: "d", Line: "l"}, "d", "l", true}, {Ticked{Line: "l"}, "", "l", false}, {LineStruck{Document: "d", Line: "l"}, "d", "l", true}, {Noted{Text: "a"}, "", "", false},
	} {
		doc, line, ok := SheetLine(c.body)
		assert.Equal(t, c.ok, ok, "%+v", c.body)
		if ok {
			assert.Equal(t, []string{c.doc, c.line}, []string{doc, line})
		}
	}
}

// What refers to other things can be made to refer to others, as when marks of the wrong student are taken over: all
// of it or none; what stays empty stays.
func TestReferringToOthers(t *testing.T) {
	to := func(r Ref) (string, bool) { return r.To + " of the other", r.ID != "unknown" }
	got, known := Referring(PointMarked{Rung: "r", Point: "p", State: Met}, to)
	assert.True(t, known)
	assert.Equal(t, PointMarked{Rung: "rung of the other", Point: "point of the other", State: Met}, got)
	_, known = Referring(PointMarked{Rung: "unknown", Point: "p"}, to)
	assert.False(t, known)
	got, known = Referring(PlayedIn{Asked: "a scale"}, to)
	assert.True(t, known)
	assert.Equal(t, PlayedIn{Asked: "a scale"}, got, "no rung stays none")
	assert.Equal(t, []Ref{{"rung", "r"}, {"point", "p"}}, Refs(PointMarked{Rung: "r", Point: "p"}))
	assert.Equal(t, Kind(""), Fact{}.Kind())
	assert.Equal(t, Kind("noted"), Fact{Body: Noted{}}.Kind())
}

// An id is twenty-six figures and letters of Crockford's base 32, the first not above seven (the ULID specification).
func TestWhatAnIDIs(t *testing.T) {
	const good = "01ARZ3NDEKTSV4RRFFQ69G5FAV"
	for id, is := range map[string]bool{good: true, "7" + good[1:]: true, "8" + good[1:]: false, good[1:]: false, good + "0": false, "01arz3ndektsv4rrffq69g5fav": false, good[:25] + "U": false, good[:25] + "I": false, "": false} {
		assert.Equal(t, is, isULID(id), id)
	}
}

// What devices keep while they are offline reaches a newer release: the bodies that the release of
// November 2026 sends, one of each kind, are read and are taken as they are.
func TestFactsOfAnOlderReleaseAreTaken(t *testing.T) {
	recorded, err := os.ReadFile("testdata/2026-11.jsonl")
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(string(recorded)), "\n")
	require.Len(t, lines, 73)
	for _, line := range lines {
		body, err := Decode([]byte(line))
		require.NoError(t, err, line)
		assert.NoError(t, of18(body).Check(now), line)
		again, err := json.Marshal(of18(body))
		require.NoError(t, err)
		var in struct{ Body json.RawMessage }
		require.NoError(t, json.Unmarshal(again, &in))
		assert.JSONEq(t, line, string(in.Body))
	}
}
