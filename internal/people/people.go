// Package people is who works in a workshop, and the one table of what each role may do.
package people

import "slices"

// Person is somebody who works in a workshop.
type Person struct {
	ID       string
	Workshop string
	Name     string
	Role     Role
}

// Role is what somebody is in a workshop.
type Role string

// The roles, the highest first.
const (
	Owner      Role = "owner"
	Foreman    Role = "foreman"
	Designer   Role = "designer"
	Installer  Role = "installer"
	Apprentice Role = "apprentice"
	Reader     Role = "reader"
)

// Roles are all there are, the highest first.
var Roles = []Role{Owner, Foreman, Designer, Installer, Apprentice, Reader}

// Act is something that may be done.
type Act string

// The acts.
const (
	Look        Act = "look"        // see all that the workshop has
	Work        Act = "work"        // have something worked out that is not kept
	Self        Act = "self"        // one's own account
	Talk        Act = "talk"        // ask and answer
	Survey      Act = "survey"      // save what was found, measured and built
	Install     Act = "install"     // tick, read, photograph, state, waive
	Design      Act = "design"      // begin and change jobs
	Books       Act = "books"       // change the books of parts and vehicles
	Issue       Act = "issue"       // issue revisions
	HandOver    Act = "handOver"    // give a vehicle's owner a link
	Countersign Act = "countersign" // stand for what an apprentice did
	Sign        Act = "sign"        // sign for an installation
	Settings    Act = "settings"    // the workshop's settings
	Trail       Act = "trail"       // who did what over the whole workshop
	Invite      Act = "invite"      // people below oneself: invite, change, reset, let go
	Tell        Act = "tell"        // list the addresses that are told what concerns the workshop
)

// Acts are all there are.
var Acts = []Act{Look, Work, Self, Talk, Survey, Install, Design, Books, Issue, HandOver, Countersign, Sign, Settings, Trail, Invite, Tell}

// table is what each role may do.
var table = map[Act][]Role{
	Look:        {Owner, Foreman, Designer, Installer, Apprentice, Reader},
	Work:        {Owner, Foreman, Designer, Installer, Apprentice, Reader},
	Self:        {Owner, Foreman, Designer, Installer, Apprentice, Reader},
	Talk:        {Owner, Foreman, Designer, Installer, Apprentice},
	Survey:      {Owner, Foreman, Designer, Installer, Apprentice},
	Install:     {Owner, Foreman, Installer, Apprentice},
	Design:      {Owner, Foreman, Designer},
	Books:       {Owner, Foreman, Designer},
	Issue:       {Owner, Foreman, Designer},
	HandOver:    {Owner, Foreman, Designer, Installer},
	Countersign: {Owner, Foreman, Installer},
	Sign:        {Owner, Foreman, Installer},
	Settings:    {Owner, Foreman},
	Trail:       {Owner, Foreman},
	Invite:      {Owner, Foreman},
	Tell:        {Owner},
}

// bay is what may be done on the bay's tablet by whoever switched to themselves with a PIN.
var bay = []Act{Look, Work, Talk, Survey, Install, Countersign}

// May says whether a role may do something.
func (r Role) May(a Act) bool { return slices.Contains(table[a], r) }

// MayInBay says whether a role may do something on the bay's tablet.
func (r Role) MayInBay(a Act) bool { return slices.Contains(bay, a) && r.May(a) }

// Over says whether a role may make and change people of another: an owner all, a foreman those below.
func (r Role) Over(other Role) bool {
	return r.May(Invite) && (r == Owner || slices.Index(Roles, other) > slices.Index(Roles, r))
}

// Waits says whether hold points, readings, statements and waivers of a role wait for a countersignature.
func (r Role) Waits() bool { return r == Apprentice }

// Known says whether there is such a role.
func (r Role) Known() bool { return slices.Contains(Roles, r) }
