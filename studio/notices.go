package studio

import (
	"context"
	"log/slog"

	"patientladder/mail"
)

// What the owner of an account is told by mail when somebody, perhaps another, has changed how one signs in.
const (
	newPassword = "The password was changed."
	newAddress  = "The mail address that one signs in with was changed to another."
	newApp      = "Signing in asks for a code of an app now."
	noApp       = "Signing in asks for no code of an app any more."
	newPasskey  = "A passkey was added."
	noPasskey   = "A passkey was dropped."
)

// warned tells the owner of an account what was changed, when it was; a mail that cannot be sent holds nothing up.
func (a *App) warned(ctx context.Context, teacher, what string, err error) error {
	if err != nil || a.mailer == nil {
		return err
	}
	t, err := a.store.Teacher(ctx, teacher)
	if err != nil {
		return told(err, "account")
	}
	a.warn(ctx, t.Email, what)
	return nil
}

func (a *App) warn(ctx context.Context, address, what string) {
	const unless = "If it was not you, ask for another password at once, where you sign in; all sign-ins end by that."
	l := mail.Letter{ID: NewID(), FromName: "Patient Ladder", To: address, Subject: "Your account", Text: what + "\n\n" + unless + "\n", HTML: "<p>" + what + "</p><p>" + unless + "</p>"}
	if err := a.mailer.Send(ctx, l); err != nil {
		slog.Warn("notice not sent", "cause", err)
	}
}
