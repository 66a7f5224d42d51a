package sending_test

import (
	"context"
	"errors"
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
	require.NoError(t, roster.SetContact(ctx, r.App, r.Who, r.Student, " parent@homes.example "))
	assert.Equal(t, sending.DaySheet{Student: r.Student, Name: "Emil", Start: "16:00", Closed: true, Contact: "parent@homes.example"}, sheets())
	_, err := sending.SendSheet(ctx, r.App, r.Who, r.Student, "", studio.NewID(), letter.A4)
	assert.ErrorContains(t, err, "no mail server is set")
	assert.ErrorContains(t, roster.SetContact(ctx, r.App, r.Who, studio.NewID(), ""), "no such student")
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

// A server that is away is said in words that ask for another try; a sheet that was
// cut off on its way is not called on its way for ever.
func TestMailThatDoesNotGoOut(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	require.NoError(t, roster.SetContact(ctx, r.App, r.Who, r.Student, "parent@homes.example"))
	r.App.Mails(brokenPost{}, "http://ladder.example")
	sent, err := sending.SendSheet(ctx, r.App, r.Who, r.Student, "", studio.NewID(), letter.A4)
	require.NoError(t, err)
	assert.Equal(t, store.Failed, sent.State)
	assert.Contains(t, sent.Says, "cannot be reached just now")

	id := studio.NewID()
	r.App.Mails(brokenPost{func() { panic("the program is killed") }}, "http://ladder.example")
	assert.Panics(t, func() { _, _ = sending.SendSheet(ctx, r.App, r.Who, r.Student, "", id, letter.A4) })
	again, err := sending.SendSheet(ctx, r.App, r.Who, r.Student, "", id, letter.A4)
	require.NoError(t, err)
	assert.Equal(t, store.Sending, again.State)
	r.Now = r.Now.Add(3 * time.Minute)
	view, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, store.Failed, view.Sending.State)
	assert.Contains(t, view.Sending.Says, "cut off")
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
	assert.ErrorContains(t, roster.SetContact(ctx, r.App, r.Who, r.Student, "a@h.example, b@h.example, c@h.example, d@h.example, e@h.example"), "4 addresses at most")
	assert.ErrorContains(t, roster.SetContact(ctx, r.App, r.Who, r.Student, "a@homes.example, b@homes"), `"b@homes" is not a mail address`)
	require.NoError(t, roster.SetContact(ctx, r.App, r.Who, r.Student, "mother@homes.example;father@homes.example"))
	var took []mail.Letter
	r.App.Mails(choosyPost{took: &took}, "http://ladder.example")
	id := studio.NewID()
	for range 2 {
		sent, err := sending.SendSheet(ctx, r.App, r.Who, r.Student, "", id, letter.A4)
		require.NoError(t, err)
		assert.Equal(t, []string{store.Sent, "father@homes.example, mother@homes.example"}, []string{sent.State, sent.Address})
	}
	require.Len(t, took, 2)
	assert.Equal(t, []string{"mother@homes.example", "father@homes.example"}, []string{took[0].To, took[1].To})
	assert.NotContains(t, took[0].Text+took[0].HTML, "father@")
	assert.NotEqual(t, took[0].Text, took[1].Text, "each has a link of its own")

	r.App.Mails(choosyPost{"father@homes.example", &took}, "http://ladder.example")
	r.Now = r.Now.Add(time.Minute)
	sent, err := sending.SendSheet(ctx, r.App, r.Who, r.Student, "", studio.NewID(), letter.A4)
	require.NoError(t, err)
	assert.Equal(t, store.Failed, sent.State)
	assert.Contains(t, sent.Says, "father@homes.example: ")
	view, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, sent, *view.Sending)
	assert.Len(t, took, 3)
}
