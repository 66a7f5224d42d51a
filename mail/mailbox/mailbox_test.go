package mailbox

import (
	"context"
	"errors"
	"net"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/mail"
)

func letter(to string) mail.Letter {
	return mail.Letter{ID: "01ARZ3NDEKTSV4RRFFQ69G5FAV", FromName: "The Ferry House", To: to, Subject: "Tobias’s week", Text: "Bars 1–4, six times.\n", HTML: "<p>Bars 1–4, six times.</p>",
		Files: []mail.File{{Name: "Tobias.pdf", Type: "application/pdf", Data: []byte("%PDF-1.4 not really")}}}
}

// A letter goes through a real SMTP conversation and arrives as it was written.
func TestALetterArrives(t *testing.T) {
	b, err := Open("127.0.0.1:0", true, func(string, string) { t.Error("nothing came back") })
	require.NoError(t, err)
	defer b.Close()
	p, err := mail.NewPost(b.Server(), "sheets@ferryhouse.example")
	require.NoError(t, err)
	sent := letter("parent@lindqvist.example")
	require.NoError(t, p.Send(context.Background(), sent))
	got := b.Letters()
	require.Len(t, got, 1)
	got[0].Text = strings.ReplaceAll(got[0].Text, "\r\n", "\n")
	assert.Equal(t, sent, got[0].Letter)
	assert.Equal(t, "returned+01arz3ndektsv4rrffq69g5fav@ferryhouse.example", got[0].From)
}

func TestWhatIsNotDelivered(t *testing.T) {
	returned := map[string]string{}
	b, err := Open("127.0.0.1:0", true, func(id, says string) { returned[id] = says })
	require.NoError(t, err)
	p, err := mail.NewPost(b.Server(), "sheets@ferryhouse.example")
	require.NoError(t, err)

	var refused *mail.Refused
	require.ErrorAs(t, p.Send(context.Background(), letter("parent@refused.example")), &refused)
	assert.Equal(t, "No such mailbox here", refused.Says)
	assert.Empty(t, b.Letters())

	require.NoError(t, p.Send(context.Background(), letter("parent@bounced.example")), "taken at first")
	assert.Equal(t, map[string]string{"01ARZ3NDEKTSV4RRFFQ69G5FAV": "The mailbox is full"}, returned)

	require.NoError(t, b.Close())
	err = p.Send(context.Background(), letter("parent@lindqvist.example"))
	require.Error(t, err)
	assert.False(t, errors.As(err, &refused), "a server that is away may be back: %v", err)
}

// Where letters go elsewhere, only reports are taken.
func TestOnlyReports(t *testing.T) {
	var why string
	b, err := Open("127.0.0.1:0", false, func(_, says string) { why = says })
	require.NoError(t, err)
	defer b.Close()
	p, err := mail.NewPost(b.Server(), "mailer-daemon@out.example")
	require.NoError(t, err)
	var refused *mail.Refused
	assert.ErrorAs(t, p.Send(context.Background(), letter("parent@lindqvist.example")), &refused)
	require.NoError(t, p.Send(context.Background(), letter("returned+01arz3ndektsv4rrffq69g5fav@ferryhouse.example")))
	assert.Equal(t, "the letter came back", why, "a letter that is no report")
	assert.Equal(t, "The mailbox is full", reported(report("x@y.example")))
}

func TestServersAndAddresses(t *testing.T) {
	for _, bad := range []string{"mail.example", "http://mail.example", "smtp://user:secret@", "smtp://mail.example:port"} {
		_, err := mail.NewPost(bad, "sheets@ferryhouse.example")
		require.Error(t, err, bad)
		assert.NotContains(t, err.Error(), "secret")
	}
	for address, good := range map[string]bool{"a@b.example": true, "a b@c.example": false, "Ann <a@b.example>": false, "a@localhost": false, "": false, "a@b.example\nBcc: x@y.example": false} {
		assert.Equal(t, good, mail.CheckAddress(address) == nil, address)
	}
	_, err := Open(taken(t), true, nil)
	assert.ErrorContains(t, err, "cannot listen")
}

// taken is an address that something listens at.
func taken(t *testing.T) string {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { l.Close() })
	return l.Addr().String()
}
