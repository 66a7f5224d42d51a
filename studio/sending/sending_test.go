package sending_test

import (
	"context"
	"errors"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/letter"
	"patientladder/mail"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/sending"
	"patientladder/studio/studiotest"
)

// The day's sheets: whose lesson is closed, and where no mail can go.
func TestSheetsOfADay(t *testing.T) {
	r := studiotest.New(t)
	sheets := func() sending.DaySheet {
		v, err := sending.Sheets(ctx, r.App, r.Who, "2026-11-18")
		require.NoError(t, err)
		require.Len(t, v.Sheets, 1)
		return v.Sheets[0]
	}
	assert.Equal(t, sending.DaySheet{Student: r.Student, Name: "Emil", Start: "16:00"}, sheets())
	r.InHand()
	require.NoError(t, roster.SetContact(ctx, r.App, r.Who, r.Student, studio.Set(roster.Contact{Address: " parent@homes.example "})))
	assert.Equal(t, sending.DaySheet{Student: r.Student, Name: "Emil", Start: "16:00", Closed: true, Contact: "parent@homes.example"}, sheets())
	_, err := sending.SendSheet(ctx, r.App, r.Who, r.Student, "", studio.NewID(), letter.A4)
	assert.ErrorContains(t, err, "no mail server is set")
	assert.ErrorContains(t, roster.SetContact(ctx, r.App, r.Who, studio.NewID(), studio.Set(roster.Contact{Address: ""})), "no such student")
	_, err = sending.Sheets(ctx, r.App, r.Who, "someday")
	assert.ErrorContains(t, err, "not a day")
}

// A post that cannot reach its server, or stops in the middle.
type brokenPost struct{ stops func() }

func (b brokenPost) Send(context.Context, mail.Letter) error {
	if b.stops != nil {
		b.stops()
	}
	return errors.New("connection refused")
}

// toSend is a room whose last sheet can be sent.
func toSend(t *testing.T) *studiotest.Room {
	r := studiotest.New(t)
	r.InHand()
	require.NoError(t, roster.SetContact(ctx, r.App, r.Who, r.Student, studio.Set(roster.Contact{Address: "parent@homes.example"})))
	return r
}

// sends puts the last sheet into the post.
func sends(r *studiotest.Room, id string) places.Sending {
	r.T.Helper()
	s, err := sending.SendSheet(ctx, r.App, r.Who, r.Student, "", id, letter.A4)
	require.NoError(r.T, err)
	return s
}

// fared is how a sending stands after so much time, with whatever is due sent.
func fared(r *studiotest.Room, id string, after time.Duration) places.Sending {
	r.T.Helper()
	r.Now = r.Now.Add(after)
	require.NoError(r.T, sending.Deliver(ctx, r.App))
	s, err := sending.Fared(ctx, r.App, r.Who, id)
	require.NoError(r.T, err)
	return s
}

// A letter waits for some seconds, in which it can be undone, and then goes out, whoever still runs.
func TestALetterThatWaits(t *testing.T) {
	r := toSend(t)
	var took []mail.Letter
	r.App.Mails(choosyPost{took: &took}, "http://ladder.example")
	id := studio.NewID()
	assert.Equal(t, store.Waiting, sends(r, id).State)
	assert.Equal(t, store.Waiting, fared(r, id, r.App.Hold-time.Microsecond).State, "not before it is due")
	assert.Empty(t, took)
	assert.Equal(t, store.Sent, fared(r, id, time.Microsecond).State)
	require.Len(t, took, 1)
	assert.Equal(t, store.Sent, fared(r, id, time.Hour).State)
	assert.Len(t, took, 1, "it goes out once")
	_, err := sending.Undo(ctx, r.App, r.Who, id)
	assert.ErrorContains(t, err, "too late")

	id = studio.NewID()
	sends(r, id)
	undone, err := sending.Undo(ctx, r.App, r.Who, id)
	require.NoError(t, err)
	assert.Equal(t, store.Undone, undone.State)
	assert.Equal(t, store.Undone, fared(r, id, time.Hour).State)
	assert.Len(t, took, 1)
	again, err := sending.Undo(ctx, r.App, r.Who, id)
	require.NoError(t, err, "undone twice is undone")
	assert.Equal(t, store.Undone, again.State)
	_, err = sending.Undo(ctx, r.App, r.Who, studio.NewID())
	assert.ErrorContains(t, err, "No letter")
}

// Several copies of the program look for letters at once; each letter goes out once.
func TestCopiesThatSendTogether(t *testing.T) {
	r := toSend(t)
	var took atomic.Int32
	post := countingPost{&took}
	r.App.Mails(post, "http://ladder.example")
	for range 10 {
		sends(r, studio.NewID())
	}
	r.Now = r.Now.Add(time.Minute)
	now := r.Now
	var all sync.WaitGroup
	for range 4 {
		all.Go(func() {
			other := studio.New(r.Store, func() time.Time { return now })
			other.Mails(post, "http://ladder.example")
			assert.NoError(t, sending.Deliver(ctx, other))
		})
	}
	all.Wait()
	assert.EqualValues(t, 10, took.Load())
}

type countingPost struct{ took *atomic.Int32 }

func (c countingPost) Send(context.Context, mail.Letter) error { c.took.Add(1); return nil }

// A server that is away is said in words that ask for another try. A letter whose sender was killed is taken up by
// the next, three times at most; one of long ago is not sent unasked.
func TestMailThatDoesNotGoOut(t *testing.T) {
	r := toSend(t)
	r.App.Mails(brokenPost{}, "http://ladder.example")
	id := studio.NewID()
	sends(r, id)
	sent := fared(r, id, time.Minute)
	assert.Equal(t, store.Failed, sent.State)
	assert.Contains(t, sent.Says, "cannot be reached just now")

	id = studio.NewID()
	sends(r, id)
	killed := brokenPost{func() { panic("the program is killed") }}
	for n := range 3 {
		r.Now = r.Now.Add(3 * time.Minute)
		r.App.Mails(killed, "http://ladder.example")
		assert.Panics(t, func() { _ = sending.Deliver(ctx, r.App) }, n)
		assert.Equal(t, store.Sending, fared(r, id, time.Minute).State, "somebody may still be at it")
	}
	last := fared(r, id, 3*time.Minute)
	assert.Equal(t, store.Failed, last.State)
	assert.Contains(t, last.Says, "cut off")

	id = studio.NewID()
	sends(r, id)
	r.Now = r.Now.Add(3 * time.Minute)
	r.App.Mails(killed, "http://ladder.example")
	assert.Panics(t, func() { _ = sending.Deliver(ctx, r.App) })
	var took []mail.Letter
	r.App.Mails(choosyPost{took: &took}, "http://ladder.example")
	assert.Equal(t, store.Sent, fared(r, id, 3*time.Minute).State, "the next one sends it")
	assert.Len(t, took, 1)

	for after, want := range map[time.Duration]string{24 * time.Hour: store.Sent, 24*time.Hour + time.Microsecond: store.Failed} {
		id = studio.NewID()
		sends(r, id)
		assert.Equal(t, want, fared(r, id, r.App.Hold+after).State, after)
	}
}

// A post that takes letters to some addresses and refuses others.
type choosyPost struct {
	refuses string
	took    *[]mail.Letter
}

func (c choosyPost) Send(_ context.Context, l mail.Letter) error {
	if l.To == c.refuses {
		return errors.New("connection refused")
	}
	*c.took = append(*c.took, l)
	return nil
}

// Two homes have a letter each, with a link of its own, and do not see each other's
// address; sending the same again sends nothing, and what did not reach one is said.
func TestALetterToTwoHomes(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	assert.ErrorContains(t, roster.SetContact(ctx, r.App, r.Who, r.Student, studio.Set(roster.Contact{Address: "a@h.example, b@h.example, c@h.example, d@h.example, e@h.example"})), "4 addresses at most")
	assert.ErrorContains(t, roster.SetContact(ctx, r.App, r.Who, r.Student, studio.Set(roster.Contact{Address: "a@homes.example, b@homes"})), `"b@homes" is not an email address`)
	require.NoError(t, roster.SetContact(ctx, r.App, r.Who, r.Student, studio.Set(roster.Contact{Address: "mother@homes.example;father@homes.example"})))
	var took []mail.Letter
	r.App.Mails(choosyPost{took: &took}, "http://ladder.example")
	id := studio.NewID()
	for range 2 {
		sends(r, id)
		sent := fared(r, id, time.Minute)
		assert.Equal(t, []string{store.Sent, "father@homes.example, mother@homes.example"}, []string{sent.State, sent.Address})
	}
	require.Len(t, took, 2)
	assert.Equal(t, []string{"mother@homes.example", "father@homes.example"}, []string{took[0].To, took[1].To})
	assert.NotContains(t, took[0].Text+took[0].HTML, "father@")
	assert.NotEqual(t, took[0].Text, took[1].Text, "each has a link of its own")

	r.App.Mails(choosyPost{"father@homes.example", &took}, "http://ladder.example")
	id = studio.NewID()
	sends(r, id)
	sent := fared(r, id, time.Minute)
	assert.Equal(t, store.Failed, sent.State)
	assert.Contains(t, sent.Says, "father@homes.example: ")
	view, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, sent, *view.Sending)
	assert.Len(t, took, 3)
}
