package account

import (
	"context"
	"log/slog"

	"patientladder/mail"
	"patientladder/studio"
)

// What the owner of an account is told by mail when somebody, perhaps another, has changed how one signs in.
const (
	newPassword = "The password was changed."
	newAddress  = "The email address that one signs in with was changed to another."
	newApp      = "Signing in asks for a code of an app now."
	noApp       = "Signing in asks for no code of an app any more."
	newPasskey  = "A passkey was added."
	noPasskey   = "A passkey was dropped."
)

// warned tells the owner of an account what was changed, when it was; a mail that cannot be sent holds nothing up.
func warned(ctx context.Context, a *studio.App, teacher, what string, err error) error {
	if err != nil {
		return err
	}
	t, err := a.Store.Teacher(ctx, teacher)
	if err != nil {
		return studio.Failed(err, "account")
	}
	warn(ctx, a, t.Email, what)
	return nil
}

func warn(ctx context.Context, a *studio.App, address, what string) {
	if a.Mailer == nil {
		return
	}
	const unless = "If it was not you, ask for another password at once, where you sign in; all sign-ins end by that."
	if err := mailOwner(ctx, a, address, "Your account", what+"\n\n"+unless+"\n", "<p>"+what+"</p><p>"+unless+"</p>"); err != nil {
		slog.Warn("notice not sent", "cause", err)
	}
}

// mailOwner sends a letter about an account, which is the program's own and no studio's.
func mailOwner(ctx context.Context, a *studio.App, to, subject, text, html string) error {
	if err := a.Mailer.Send(ctx, mail.Letter{ID: studio.NewID(), FromName: "Patient Ladder", To: to, Subject: subject, Text: text, HTML: html}); err != nil {
		return &studio.Error{Kind: studio.Unavailable, Says: "The mail could not be sent just now; try again in a while.", Cause: err}
	}
	return nil
}
