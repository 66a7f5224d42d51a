package studio

import (
	"context"
	"errors"
	"html"
	"time"

	"patientladder/store"
)

// Confirming has a studio be made only when the link in a mail to its address is opened. What a sign-up answers
// is then the same whoever has an account.
func (a *App) Confirming() { a.confirms = true }

// confirmHolds is how long a link in such a mail holds.
const confirmHolds = time.Hour

// askToConfirm mails a link that makes a studio; to an address that has an account, that it has one.
func (a *App) askToConfirm(ctx context.Context, in store.SignUp) error {
	_, err := a.store.TeacherByEmail(ctx, in.Email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return told(err, "account")
	}
	says, link, then := "Somebody, perhaps you, opened a studio in Patient Ladder with this address, which has an account already.", a.base+"/sign-in", "Sign in, or ask for another password there"
	if err != nil {
		token := chance()
		if err := a.store.AddSignUp(ctx, token, in); err != nil {
			return told(err, "account")
		}
		says, link, then = "Somebody, perhaps you, opened a studio in Patient Ladder with this address.", a.base+"/confirm#"+token, "Confirm it within an hour"
	}
	const unless = "If it was not you, nothing has changed and there is nothing to do."
	return a.mailOwner(ctx, in.Email, "Your studio", says+"\n\n"+then+":\n"+link+"\n\n"+unless+"\n",
		"<p>"+says+"</p><p><a href=\""+html.EscapeString(link)+"\">"+then+"</a>.</p><p>"+unless+"</p>")
}

// Confirm makes the studio that a link was mailed for.
func (a *App) Confirm(ctx context.Context, token string) (Who, error) {
	in, err := a.store.TakeSignUp(ctx, token, confirmHolds)
	if errors.Is(err, store.ErrNotFound) {
		return Who{}, &Error{Gone, "This link was used or is older than an hour. Open the studio again.", err}
	}
	if err != nil {
		return Who{}, told(err, "account")
	}
	return a.found(ctx, in)
}

// found makes a studio and its teacher.
func (a *App) found(ctx context.Context, in store.SignUp) (Who, error) {
	who := Who{NewID(), NewID()}
	err := a.store.AddStudio(ctx, store.StudioRow{ID: who.Studio, Name: in.Studio, Zone: in.Zone, Calendar: in.Calendar, Demo: in.Demo, ClockShift: in.Shift},
		store.Teacher{ID: who.Teacher, Email: in.Email, Name: in.Name, Password: in.Password}, in.Invitation)
	if errors.Is(err, store.ErrNotFound) {
		return Who{}, &Error{Gone, "This invitation was used or is not one. Ask who runs this copy for another.", err}
	}
	if errors.Is(err, store.ErrTaken) {
		return Who{}, &Error{Conflict, "This mail address has an account already; sign in instead.", err}
	}
	return who, told(err, "studio")
}
