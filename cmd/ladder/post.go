package main

import (
	"cmp"
	"context"
	"log/slog"
	"os"

	"patientladder/mail"
	"patientladder/mail/mailbox"
	"patientladder/studio"
	"patientladder/studio/sending"
)

// localSender is who mail in the program's own mailbox comes from.
const localSender = "sheets@ladder.example"

// post makes an app send its mail: through the server that LADDER_SMTP names, from
// LADDER_MAIL_FROM, or into a mailbox of the program's own, which is returned. base is
// where families reach the program. Close ends what was opened.
func post(app *studio.App, base string) (box *mailbox.Box, closeAll func(), err error) {
	returned := func(id, says string) {
		if err := sending.Returned(context.Background(), app, id, says); err != nil {
			slog.Error("a letter came back", "sending", id, "says", says, "cause", err)
		}
	}
	server, from, reports := os.Getenv("LADDER_SMTP"), os.Getenv("LADDER_MAIL_FROM"), os.Getenv("LADDER_RETURNS")
	own := server == ""
	closeAll = func() {}
	if own || reports != "" {
		opened, err := mailbox.Open(cmp.Or(reports, "127.0.0.1:0"), own, returned)
		if err != nil {
			return nil, closeAll, err
		}
		closeAll = func() { _ = opened.Close() }
		if own { // else it only takes reports
			box, server, from = opened, opened.Server(), cmp.Or(from, localSender)
		}
	}
	p, err := mail.NewPost(server, from)
	if err != nil {
		closeAll()
		return nil, func() {}, err
	}
	app.Mails(p, cmp.Or(os.Getenv("LADDER_URL"), base))
	if !own {
		app.Confirms = true
	}
	return box, closeAll, nil
}
