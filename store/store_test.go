package store_test

import (
	"context"
	"database/sql"
	"errors"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/store/storetest"
)

var ctx = context.Background()

func id() string { return ulid.Make().String() }

func studio(t *testing.T, s *store.Store, email string) store.Studio {
	st := store.StudioRow{ID: id(), Name: "Studio of " + email, Zone: "Europe/London",
		Calendar: calendar.Calendar{Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}}}}
	require.NoError(t, s.AddStudio(ctx, st, store.Teacher{ID: id(), Email: email, Name: "T", Password: "x"}, ""))
	return s.In(st.ID)
}

func student(t *testing.T, st store.Studio) store.Student {
	s := store.Student{ID: id(), FirstName: "Emil", FamilyName: "Castellano", BirthYear: 2018, BirthMonth: 3, Instrument: "cello",
		Slot: calendar.Slot{Weekday: 3, Start: "16:00", Minutes: 30}, Approach: approach.EarFirst(8)}
	require.NoError(t, st.AddStudent(ctx, s, nil))
	return s
}

func TestWhatGoesInComesOut(t *testing.T) {
	s := storetest.New(t)
	st := studio(t, s, "one@example.com")
	want := student(t, st)
	got, err := st.Student(ctx, want.ID)
	require.NoError(t, err)
	want.First, want.Turn = got.First, got.Turn
	assert.Equal(t, got.First, got.Turn, "nothing was told yet")
	assert.Equal(t, want, got)
	require.NoError(t, st.AddStudent(ctx, want, nil), "saying it twice")
	all, err := st.Students(ctx)
	require.NoError(t, err)
	assert.Len(t, all, 1)

	it := shelf.Item{ID: id(), Title: "Lamp Room", Instrument: "cello", Strand: shelf.Book, Brings: []string{"slur-three"}, Points: shelf.PointsOf("Tone"), Parts: shelf.Parts{}}
	file := &store.ScoreFile{Name: "lamp.abc", Data: []byte("X:1\nK:D\nD|")}
	require.NoError(t, st.AddItems(ctx, []store.NewItem{{Item: it, File: file}}))
	require.NoError(t, st.AddItems(ctx, []store.NewItem{{Item: it, File: file}}))
	items, err := st.Items(ctx)
	require.NoError(t, err)
	it.HasScore = true
	assert.Equal(t, []shelf.Item{it}, items)
	back, err := st.Score(ctx, it.ID)
	require.NoError(t, err)
	assert.Equal(t, *file, back)

	row, err := st.Row(ctx)
	require.NoError(t, err)
	assert.Equal(t, calendar.Date("2026-09-07"), row.Calendar.Terms[0].From)
	assert.ErrorIs(t, st.SetClock(ctx, time.Hour), store.ErrNotFound, "only a demo's clock moves")
}

func TestFactsOnceAndInOrder(t *testing.T) {
	s := storetest.New(t)
	st := studio(t, s, "facts@example.com")
	emil := student(t, st)
	at := time.Date(2026, 11, 18, 16, 0, 0, 123456000, time.UTC)
	a := fact.Fact{ID: id(), Student: emil.ID, At: at.Add(time.Minute), By: fact.Teacher, Body: fact.Noted{Text: "later — “naïve” 🎻"}}
	b := fact.Fact{ID: id(), Student: emil.ID, At: at, By: fact.Family, Body: fact.Noted{Text: "earlier"}}
	require.NoError(t, st.AddTold(ctx, []fact.Fact{a, b}, nil, plenty))
	changed := a
	changed.Body = fact.Noted{Text: "overwritten?"}
	another := fact.Fact{ID: id(), Student: emil.ID, At: at, Body: fact.Noted{Text: "beside it"}}
	assert.ErrorIs(t, st.AddTold(ctx, []fact.Fact{another, changed}, nil, plenty), store.ErrTaken)
	got, err := st.Facts(ctx, emil.ID)
	require.NoError(t, err)
	assert.Equal(t, []fact.Fact{b, a}, got, "nothing recorded is ever overwritten")

	stranger := fact.Fact{ID: id(), Student: id(), At: at, Body: fact.Noted{Text: "x"}}
	good := fact.Fact{ID: id(), Student: emil.ID, At: at, Body: fact.Noted{Text: "x"}}
	assert.ErrorIs(t, st.AddTold(ctx, []fact.Fact{good, stranger}, nil, plenty), store.ErrNotFound)
	got, err = st.Facts(ctx, emil.ID)
	require.NoError(t, err)
	assert.Len(t, got, 2, "all or none")
}

func TestStudiosDoNotMeet(t *testing.T) {
	s := storetest.New(t)
	mine, theirs := studio(t, s, "mine@example.com"), studio(t, s, "theirs@example.com")
	emil := student(t, mine)
	item := shelf.Item{ID: id(), Title: "Mine"}
	require.NoError(t, mine.AddItems(ctx, []store.NewItem{{Item: item, File: &store.ScoreFile{Name: "a.abc", Data: []byte("x")}}}))
	placed := fact.Fact{ID: id(), Student: emil.ID, At: time.Now().UTC(), Body: fact.RungAdded{Item: item.ID}}
	require.NoError(t, mine.AddTold(ctx, []fact.Fact{placed}, nil, plenty))

	_, err := theirs.Student(ctx, emil.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = theirs.Item(ctx, item.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = theirs.Score(ctx, item.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	facts, err := theirs.Facts(ctx, emil.ID)
	require.NoError(t, err)
	assert.Empty(t, facts)
	items, err := theirs.Items(ctx)
	require.NoError(t, err)
	assert.Empty(t, items)
	assert.ErrorIs(t, theirs.AddTold(ctx, []fact.Fact{placed}, nil, plenty), store.ErrNotFound)
	all, err := theirs.Students(ctx)
	require.NoError(t, err)
	assert.Empty(t, all)
}

var plenty = store.Limits{Family: 1000, Student: 1000, Studio: 1000}

// A day takes so many facts of a family, of a student and of a studio; what is refused is not kept, and
// another day begins anew.
func TestHowMuchADayTakes(t *testing.T) {
	s := storetest.New(t)
	st := studio(t, s, "a@example.com")
	emil, bea := student(t, st), student(t, st)
	tell := func(of store.Student, by fact.Author, n int) error {
		var facts []fact.Fact
		for range n {
			facts = append(facts, fact.Fact{ID: id(), Student: of.ID, At: time.Now(), By: by, Body: fact.Noted{Text: "x"}})
		}
		return st.AddTold(ctx, facts, nil, store.Limits{Family: 5, Student: 8, Studio: 12})
	}
	require.NoError(t, tell(emil, fact.Family, 5), "as many as a family may")
	assert.ErrorIs(t, tell(emil, fact.Family, 1), store.ErrTooMany)
	require.NoError(t, tell(emil, fact.Teacher, 3), "the teacher still may")
	assert.ErrorIs(t, tell(emil, fact.Teacher, 1), store.ErrTooMany, "nine of one student")
	require.NoError(t, tell(bea, fact.Teacher, 4))
	assert.ErrorIs(t, tell(bea, fact.Teacher, 1), store.ErrTooMany, "thirteen in the studio")
	kept, err := st.Facts(ctx, emil.ID)
	require.NoError(t, err)
	assert.Len(t, kept, 8)
	_, err = s.DB().Exec("UPDATE told SET day = day - INTERVAL 1 DAY")
	require.NoError(t, err)
	require.NoError(t, tell(emil, fact.Family, 5), "the next day")
	require.NoError(t, s.ForgetTold(ctx))
}

func TestAccounts(t *testing.T) {
	s := storetest.New(t)
	studio(t, s, "ottilie@example.com")
	err := s.AddStudio(ctx, store.StudioRow{ID: id(), Zone: "UTC"}, store.Teacher{ID: id(), Email: "ottilie@example.com"}, "")
	assert.ErrorIs(t, err, store.ErrTaken)
	got, err := s.TeacherByEmail(ctx, "ottilie@example.com")
	require.NoError(t, err)
	assert.Equal(t, "T", got.Name)
	_, err = s.TeacherByEmail(ctx, "nobody@example.com")
	assert.ErrorIs(t, err, store.ErrNotFound)
	var ids []int64
	for k := range 3 {
		id, before, _, err := s.ReserveSignIn(ctx, "10.0.0.1", time.Minute, time.Now())
		require.NoError(t, err)
		assert.Equal(t, k, before, "those before it")
		ids = append(ids, id)
	}
	_, before, _, err := s.ReserveSignIn(ctx, "10.0.0.2", time.Minute, time.Now())
	require.NoError(t, err)
	assert.Zero(t, before, "of another address")
	_, err = s.DB().Exec("UPDATE sign_ins SET at = ? WHERE id = ?", time.Now().UTC().Add(-30*time.Second), ids[2])
	require.NoError(t, err)
	require.NoError(t, s.RefundSignIns(ctx, ids[:2]))
	_, before, last, err := s.ReserveSignIn(ctx, "10.0.0.1", time.Minute, time.Now())
	require.NoError(t, err)
	assert.Equal(t, 1, before, "two were none")
	assert.InDelta(t, 30, last.Seconds(), 5)

	require.NoError(t, s.AddInvitation(ctx, "come in"))
	another := func(email, invitation string) error {
		return s.AddStudio(ctx, store.StudioRow{ID: id(), Zone: "UTC"}, store.Teacher{ID: id(), Email: email}, invitation)
	}
	assert.ErrorIs(t, another("a@example.com", "let me in"), store.ErrNotFound)
	assert.NoError(t, another("a@example.com", "come in"))
	assert.ErrorIs(t, another("b@example.com", "come in"), store.ErrNotFound, "it was used")
	assert.NoError(t, another("á@example.com", ""), "accents differ")
}

func TestMigratingTwiceChangesNothing(t *testing.T) {
	s := storetest.New(t)
	a, err := s.Migrate(ctx)
	require.NoError(t, err)
	b, err := s.Migrate(ctx)
	require.NoError(t, err)
	assert.Equal(t, a, b)
	assert.GreaterOrEqual(t, a, int64(10))
}

func TestNamesOfFailures(t *testing.T) {
	for number, want := range map[uint16]error{1021: store.ErrFull, 1114: store.ErrFull, 1062: store.ErrTaken, 1053: store.ErrUnavailable} {
		assert.ErrorIs(t, store.Classify(&mysql.MySQLError{Number: number}), want)
	}
	assert.ErrorIs(t, store.Classify(mysql.ErrInvalidConn), store.ErrUnavailable)
	assert.NoError(t, store.Classify(nil))
	other := errors.New("other")
	assert.Equal(t, other, store.Classify(other))
}

func TestDatabaseOutOfReach(t *testing.T) {
	start := time.Now()
	_, err := store.Open(ctx, "u:p@tcp(127.0.0.1:1)/x", 300*time.Millisecond)
	assert.ErrorIs(t, err, store.ErrUnavailable)
	assert.GreaterOrEqual(t, time.Since(start), 300*time.Millisecond, "it keeps trying as long as it says")
	_, err = store.Open(ctx, "not an address", 0)
	assert.ErrorContains(t, err, "user:password")
}

// What a score tells is kept beside its item: a better reader reaches a shelf that is
// there, a listing that is saved leaves it alone, and a file that came before is known.
func TestReadingsAreKeptBesideItems(t *testing.T) {
	s := storetest.New(t)
	st := studio(t, s, "reads@example.com")
	file := store.ScoreFile{Name: "oars.abc", Data: []byte("X:1\nT:Oars\nK:D\nA A B c|d2 A2|\n")}
	it := shelf.Item{ID: id(), Title: "Oars", Instrument: "violin", Strand: shelf.Book}
	read, err := shelf.Read(file.Name, file.Data, instrument.Shipped.Of("violin"))
	require.NoError(t, err)
	it.Take(read)
	require.NoError(t, st.AddItems(ctx, []store.NewItem{{Item: it, File: &file}}))
	same := func(says string) {
		t.Helper()
		got, err := st.Item(ctx, it.ID)
		require.NoError(t, err)
		assert.Equal(t, read, got.Printed(), says)
		assert.True(t, got.HasScore)
	}
	same("as it was read")
	edited := shelf.Item{ID: it.ID, Title: "Four Oars", Instrument: "violin", Strand: shelf.Book, Bars: 99, Low: 7, HasScore: true}
	require.NoError(t, st.SetItems(ctx, []shelf.Item{edited}, nil))
	same("whatever an editor sends")
	require.NoError(t, store.Age(ctx, s))
	same("an older reader's is read again")
	items, err := st.Items(ctx)
	require.NoError(t, err)
	assert.Equal(t, read.Demanded, items[0].Demanded)
	holders, err := st.HoldersOf(ctx, file.Data)
	require.NoError(t, err)
	assert.Equal(t, []string{it.ID}, holders)
	other := studio(t, s, "other@example.com")
	holders, err = other.HoldersOf(ctx, file.Data)
	require.NoError(t, err)
	assert.Empty(t, holders, "another studio's files are not known")
}

// A change that another writer cuts short is begun again, so often and no oftener; what fails otherwise is not.
func TestWhatIsBegunAgain(t *testing.T) {
	s := storetest.New(t)
	for _, c := range []struct {
		name  string
		code  uint16
		times int // that it is cut short
		began int
		err   error
	}{
		{"not at all", 1213, 0, 1, nil},
		{"parted", 1213, 1, 2, nil},
		{"waited too long", 1205, 1, 2, nil},
		{"parted but for the last time", 1213, store.Beginnings - 1, store.Beginnings, nil},
		{"parted each time", 1213, store.Beginnings, store.Beginnings, store.ErrUnavailable},
		{"there already", 1062, 1, 1, store.ErrTaken},
	} {
		t.Run(c.name, func(t *testing.T) {
			began, before := 0, s.BegunAgain()
			err := s.InTx(t.Context(), func(*sql.Tx) error {
				if began++; began <= c.times {
					return &mysql.MySQLError{Number: c.code}
				}
				return nil
			})
			assert.ErrorIs(t, err, c.err)
			assert.Equal(t, c.began, began)
			assert.EqualValues(t, c.began-1, s.BegunAgain()-before)
		})
	}
}

// A sign-in that was not seen for a week does not hold any more.
func TestASignInThatIsIdle(t *testing.T) {
	s := storetest.New(t)
	studio(t, s, "idle@example.com")
	owner, err := s.TeacherByEmail(t.Context(), "idle@example.com")
	require.NoError(t, err)
	id := ulid.Make().String()
	require.NoError(t, s.AddDevice(t.Context(), owner.ID, id, "a tablet"))
	for age, holds := range map[string]bool{"INTERVAL 6 DAY": true, "INTERVAL 10079 MINUTE": true, "INTERVAL 10081 MINUTE": false} {
		_, err := s.DB().Exec("UPDATE devices SET seen = NOW(6) - " + age)
		require.NoError(t, err)
		got, language, err := s.SeeDevice(t.Context(), owner.ID, id)
		require.NoError(t, err)
		assert.Equal(t, []any{holds, map[bool]string{true: "en-GB"}[holds]}, []any{got, language}, age)
	}
}
