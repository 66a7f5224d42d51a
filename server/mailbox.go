package server

import (
	"context"
	"mime"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/studio"
	"patientladder/studio/sending"
)

// A MailboxView is what the program's own mailbox holds of a studio's mail.
type MailboxView struct {
	On      bool         `json:"on" doc:"mail stays in this mailbox; else it goes out"`
	Letters []LetterView `json:"letters" doc:"the newest first"`
}

// A LetterView is a letter that arrived.
type LetterView struct {
	ID      string    `json:"id"`
	To      string    `json:"to"`
	From    string    `json:"from"`
	Subject string    `json:"subject"`
	At      time.Time `json:"at"`
	Text    string    `json:"text"`
	HTML    string    `json:"html"`
	Files   []string  `json:"files" doc:"names"`
}

// mailbox registers reading the program's own mailbox.
func (s *Server) mailbox() {
	get(s, "/api/mailbox", "mailbox", "Mail that stayed in the program's own mailbox", func(ctx context.Context, w studio.Who, _ *none) (MailboxView, error) {
		v := MailboxView{On: s.box != nil, Letters: []LetterView{}}
		if s.box == nil {
			return v, nil
		}
		own, err := sending.SentFrom(ctx, s.app, w)
		if err != nil {
			return v, err
		}
		for _, l := range s.box.Letters() {
			if own[l.ID] {
				one := LetterView{l.ID, l.To, l.FromName, l.Subject, l.At, l.Text, l.HTML, []string{}}
				for _, f := range l.Files {
					one.Files = append(one.Files, f.Name)
				}
				v.Letters = append(v.Letters, one)
			}
		}
		return v, nil
	})
	huma.Register(s.api, huma.Operation{OperationID: "mailbox-file", Method: http.MethodGet, Path: "/api/mailbox/{letter}/{file}", Summary: "A file that came with a letter"},
		func(ctx context.Context, in *struct {
			Letter string `path:"letter" maxLength:"26"`
			File   string `path:"file" maxLength:"100"`
		}) (*file, error) {
			missing := huma.Error404NotFound("There is no such file in the mailbox.")
			if s.box == nil {
				return nil, missing
			}
			own, err := sending.SentFrom(ctx, s.app, who(ctx))
			if err != nil {
				return nil, s.problem(ctx, err)
			}
			for _, l := range s.box.Letters() {
				for _, f := range l.Files {
					if own[l.ID] && l.ID == in.Letter && f.Name == in.File {
						return &file{f.Type, mime.FormatMediaType("inline", map[string]string{"filename": f.Name}), f.Data}, nil
					}
				}
			}
			return nil, missing
		})
}
