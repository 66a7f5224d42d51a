// Package mailbox is an SMTP server of our own: it keeps the letters that the demo
// sends, so that they can be read, and takes reports about letters that could not be
// delivered.
//
// It listens on loopback and speaks real SMTP (RFC 5321). Two domains stand for what
// happens out in the world: it refuses every address at refused.example, and takes a
// letter to bounced.example only to return it, with a report as RFC 3464 writes it.
package mailbox

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"net"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/emersion/go-message"
	gomail "github.com/emersion/go-message/mail"
	"github.com/emersion/go-smtp"

	"patientladder/mail"
)

// The domains that stand for what happens out in the world.
const (
	Refused = "refused.example"
	Bounced = "bounced.example"
)

const (
	most      = 500      // letters that are kept, the oldest go first
	maxLetter = 10 << 20 // bytes of one
)

// A Letter is one that arrived.
type Letter struct {
	mail.Letter
	From string
	At   time.Time
}

// A Box is a mailbox that listens.
type Box struct {
	server   *smtp.Server
	addr     net.Addr
	keeps    bool
	returned func(id, says string)

	mu      sync.Mutex
	letters []Letter
}

// Open listens at an address such as 127.0.0.1:0. Reports about letters that could
// not be delivered are told to returned: which letter, and why. With keep every other
// letter is kept too; without it is refused.
func Open(addr string, keep bool, returned func(id, says string)) (*Box, error) {
	l, err := net.Listen("tcp", addr)
	if err != nil {
		return nil, fmt.Errorf("the mailbox cannot listen at %s: %w", addr, err)
	}
	b := &Box{addr: l.Addr(), keeps: keep, returned: returned}
	b.server = smtp.NewServer(smtp.BackendFunc(func(*smtp.Conn) (smtp.Session, error) { return &session{box: b}, nil }))
	b.server.Domain = "localhost"
	b.server.MaxMessageBytes, b.server.MaxRecipients = maxLetter, 10
	b.server.ReadTimeout, b.server.WriteTimeout = 30*time.Second, 30*time.Second
	go func() { _ = b.server.Serve(l) }() // ends with Close
	return b, nil
}

// Server returns the address to send through, as mail.NewPost reads it.
func (b *Box) Server() string { return "smtp://" + b.addr.String() }

// Close stops listening.
func (b *Box) Close() error { return b.server.Close() }

// Letters returns what arrived, the newest first.
func (b *Box) Letters() []Letter {
	b.mu.Lock()
	defer b.mu.Unlock()
	out := slices.Clone(b.letters)
	slices.Reverse(out)
	return out
}

// A session is one SMTP conversation.
type session struct {
	box  *Box
	from string
	to   []string
}

func (s *session) Reset()        { s.from, s.to = "", nil }
func (s *session) Logout() error { return nil }

func (s *session) Mail(from string, _ *smtp.MailOptions) error {
	s.from = from
	return nil
}

func (s *session) Rcpt(to string, _ *smtp.RcptOptions) error {
	_, back := mail.ReturnedTo(to)
	if at(to, Refused) || !back && !s.box.keeps {
		return &smtp.SMTPError{Code: 550, EnhancedCode: smtp.EnhancedCode{5, 1, 1}, Message: "No such mailbox here"}
	}
	s.to = append(s.to, to)
	return nil
}

func at(address, domain string) bool {
	return strings.HasSuffix(strings.ToLower(address), "@"+domain)
}

func (s *session) Data(r io.Reader) error {
	data, err := io.ReadAll(r)
	if err != nil {
		return err
	}
	for _, to := range s.to {
		if id, back := mail.ReturnedTo(to); back {
			s.box.returned(id, reported(data))
			continue
		}
		if err := s.box.take(s.from, to, data); err != nil {
			return &smtp.SMTPError{Code: 554, EnhancedCode: smtp.EnhancedCode{5, 6, 0}, Message: "This letter cannot be read"}
		}
		if id, back := mail.ReturnedTo(s.from); back && at(to, Bounced) {
			s.box.returned(id, reported(report(to)))
		}
	}
	return nil
}

// take keeps a letter.
func (b *Box) take(from, to string, data []byte) error {
	l, err := read(data)
	if err != nil {
		return err
	}
	l.From, l.To, l.At = from, to, time.Now()
	b.mu.Lock()
	defer b.mu.Unlock()
	b.letters = append(b.letters, l)
	b.letters = b.letters[max(0, len(b.letters)-most):]
	return nil
}

// read takes a letter's parts from its text.
func read(data []byte) (Letter, error) {
	r, err := gomail.CreateReader(bytes.NewReader(data))
	if err != nil {
		return Letter{}, err
	}
	var l Letter
	id, err1 := r.Header.MessageID()
	subject, err2 := r.Header.Subject()
	if err := errors.Join(err1, err2); err != nil {
		return Letter{}, err
	}
	local, _, _ := strings.Cut(id, "@")
	l.ID, l.Subject = strings.ToUpper(local), subject
	if from, err := r.Header.AddressList("From"); err == nil && len(from) > 0 {
		l.FromName = from[0].Name
	}
	for {
		part, err := r.NextPart()
		if errors.Is(err, io.EOF) {
			return l, nil
		}
		if err != nil {
			return l, err
		}
		body, err := io.ReadAll(part.Body)
		if err != nil {
			return l, err
		}
		switch h := part.Header.(type) {
		case *gomail.InlineHeader:
			if kind, _, _ := h.ContentType(); kind == "text/html" {
				l.HTML = string(body)
			} else {
				l.Text = string(body)
			}
		case *gomail.AttachmentHeader:
			name, err := h.Filename()
			if err != nil {
				return l, err
			}
			kind, _, err := h.ContentType()
			if err != nil {
				return l, err
			}
			l.Files = append(l.Files, mail.File{Name: name, Type: kind, Data: body})
		}
	}
}

// report writes a report that a letter could not be delivered (RFC 3464).
func report(to string) []byte {
	return []byte("From: Mail delivery <mailer-daemon@localhost>\r\nSubject: Returned\r\nMIME-Version: 1.0\r\n" +
		"Content-Type: multipart/report; report-type=delivery-status; boundary=report\r\n\r\n" +
		"--report\r\nContent-Type: text/plain\r\n\r\nYour letter could not be delivered.\r\n" +
		"--report\r\nContent-Type: message/delivery-status\r\n\r\nReporting-MTA: dns; localhost\r\n\r\n" +
		"Final-Recipient: rfc822; " + to + "\r\nAction: failed\r\nStatus: 5.2.2\r\nDiagnostic-Code: smtp; 552 5.2.2 The mailbox is full\r\n" +
		"--report--\r\n")
}

// reported is why a letter was returned, as the report has it.
func reported(data []byte) string {
	const plain = "the letter came back"
	e, err := message.Read(bytes.NewReader(data))
	if err != nil {
		return plain
	}
	says := plain
	// a report whose end is missing still tells what stands before it
	_ = e.Walk(func(_ []int, part *message.Entity, err error) error {
		if err != nil {
			return err
		}
		if kind, _, _ := part.Header.ContentType(); kind != "message/delivery-status" {
			return nil
		}
		body, err := io.ReadAll(io.LimitReader(part.Body, 1<<16))
		for line := range strings.Lines(string(body)) {
			if name, value, found := strings.Cut(line, ":"); found && strings.EqualFold(name, "Diagnostic-Code") {
				_, text, _ := strings.Cut(value, ";")
				says = strings.TrimLeft(strings.TrimSpace(text), "0123456789. ")
			}
		}
		return err
	})
	return says
}
