package store_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/store"
	"patientladder/store/storetest"
)

// A sheet's mail is kept once for an id, ends in one state, and a report that it came
// back stands whenever it arrives.
func TestHowAMailFares(t *testing.T) {
	s := storetest.New(t)
	st := studio(t, s, "mails@example.com")
	emil := student(t, st)
	at := time.Date(2026, 11, 18, 16, 30, 0, 0, time.UTC)
	add := func(day calendar.Date, after time.Duration) store.Mailing {
		m := store.Mailing{Kind: document.Sheet, ID: id(), Student: emil.ID, Day: day, Address: "parent@homes.example", Paper: "A4", At: at.Add(after), Due: at.Add(after)}
		added, err := st.AddMailing(ctx, m)
		require.NoError(t, err)
		require.True(t, added)
		added, err = st.AddMailing(ctx, m)
		require.NoError(t, err)
		require.False(t, added, "the same id again is the same sheet")
		due, err := s.DueMailings(ctx, m.Due)
		require.NoError(t, err)
		require.Len(t, due, 1)
		for n := range 2 {
			mine, err := s.TakeMailing(ctx, due[0], m.Due.Add(time.Hour))
			require.NoError(t, err)
			require.Equal(t, n == 0, mine, "who comes first takes it")
		}
		return m
	}
	old, first, second := add("2026-11-11", 0), add("2026-11-18", 0), add("2026-11-18", time.Minute)
	require.NoError(t, st.EndMailing(ctx, old.ID, store.Sent, ""))
	require.NoError(t, s.Return(ctx, first.ID, "The mailbox is full"))
	require.NoError(t, st.EndMailing(ctx, first.ID, store.Sent, ""), "the report was quicker")
	require.NoError(t, st.EndMailing(ctx, second.ID, store.Refused, strings.Repeat("no ", 200)))
	require.NoError(t, s.Return(ctx, id(), "of a letter that nobody sent"))

	list, err := st.Mailings(ctx, document.Sheet, "2026-11-18")
	require.NoError(t, err)
	require.Len(t, list, 2, "those of earlier lessons are left out")
	assert.Equal(t, []string{second.ID, store.Refused, first.ID, store.Bounced}, []string{list[0].ID, list[0].State, list[1].ID, list[1].State}, "the newest first")
	assert.Equal(t, "The mailbox is full", list[1].Says)
	assert.Len(t, list[0].Says, 300)

	reports, err := st.Mailings(ctx, document.Report, "2000-01-01")
	require.NoError(t, err)
	assert.Empty(t, reports, "of another kind of document")
	other := studio(t, s, "others@example.com")
	list, err = other.Mailings(ctx, document.Sheet, "2000-01-01")
	require.NoError(t, err)
	assert.Empty(t, list)
	require.NoError(t, other.EndMailing(ctx, old.ID, store.Failed, "not theirs"))
	list, err = st.Mailings(ctx, document.Sheet, "2026-11-11")
	require.NoError(t, err)
	assert.Equal(t, store.Sent, list[2].State)
}

func TestAddressesSlotsAndTerms(t *testing.T) {
	s := storetest.New(t)
	st, other := studio(t, s, "terms@example.com"), studio(t, s, "other@example.com")
	emil := student(t, st)
	require.NoError(t, st.SetContact(ctx, emil.ID, "parent@homes.example", ""))
	slot := calendar.Slot{Weekday: 5, Start: "17:15", Minutes: 45}
	require.NoError(t, st.SetSlot(ctx, emil.ID, slot))
	got, err := st.Student(ctx, emil.ID)
	require.NoError(t, err)
	assert.Equal(t, []any{"parent@homes.example", slot}, []any{got.Contact, got.Slot})
	assert.ErrorIs(t, other.SetContact(ctx, emil.ID, "them@homes.example", ""), store.ErrNotFound)
	assert.ErrorIs(t, other.SetSlot(ctx, emil.ID, slot), store.ErrNotFound)

	cal := calendar.Calendar{Terms: []calendar.Span{{Name: "spring", From: "2027-01-11", To: "2027-03-26"}}}
	require.NoError(t, st.SetCalendar(ctx, cal))
	row, err := st.Row(ctx)
	require.NoError(t, err)
	assert.Equal(t, cal.Terms, row.Calendar.Terms)
	row, err = other.Row(ctx)
	require.NoError(t, err)
	assert.Equal(t, "autumn", row.Calendar.Terms[0].Name)
}

// Of a feed's address only the hash is kept, and a new one ends the one before.
func TestFeeds(t *testing.T) {
	s := storetest.New(t)
	st := studio(t, s, "feeds@example.com")
	require.NoError(t, st.SetFeed(ctx, "first"))
	owner, err := s.Feed(ctx, "first")
	require.NoError(t, err)
	row, err := s.In(owner).Row(ctx)
	require.NoError(t, err)
	assert.Equal(t, "Studio of feeds@example.com", row.Name)
	require.NoError(t, st.SetFeed(ctx, "second"))
	_, err = s.Feed(ctx, "first")
	assert.ErrorIs(t, err, store.ErrNotFound)
	var plain int
	require.NoError(t, s.DB().QueryRow(`SELECT COUNT(*) FROM calendar_feeds WHERE token = 'second'`).Scan(&plain))
	assert.Zero(t, plain)
}
