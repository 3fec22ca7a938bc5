package syntax

import (
	"regexp"
	"strings"

	"jantel/core/model"
)

// What sends and receives messages by name. The plain ones are about messages
// wherever they are called; the others may be about anything, such as the
// events of a page.
var (
	plainSends = Set(
		"publish", "Publish", "PublishAsync", "sendToQueue", "produce", "Produce", "enqueue", "convertAndSend",
		"basic_publish", "BasicPublish", "publishEvent", "send_task", "PublishMsg", "broadcast", "emit_signal",
		"sendMessage", "send_message", "SendMessage", "EnqueueAsync",
	)
	sends = Set("emit", "Emit", "trigger", "fire", "dispatch", "dispatchEvent", "notify", "send", "Send", "add")

	plainReceives = Set(
		"subscribe", "Subscribe", "SubscribeAsync", "QueueSubscribe", "consume", "Consume", "basic_consume",
		"BasicConsume", "KafkaListener", "RabbitListener", "JmsListener", "SqsListener", "StreamListener",
		"EventListener", "MessagePattern", "EventPattern", "psubscribe", "OnEvent", "Subscription",
	)
	receives = Set("on", "On", "once", "addListener", "addEventListener", "listen", "connect", "process", "handle", "off")
)

// carriers are what the doubtful calls have to be called on, where a name alone
// could be anything.
var carriers = map[string]map[string]bool{
	"send":     Set("producer", "kafkaTemplate", "channel", "queue", "bus", "rabbitTemplate", "jmsTemplate", "sqs", "mailbox", "publisher"),
	"Send":     Set("producer", "bus", "queue", "channel", "publisher", "sender"),
	"add":      Set("queue", "jobs"),
	"process":  Set("queue", "jobs", "worker"),
	"handle":   Set("bus", "queue", "events"),
	"dispatch": Set("bus", "events", "dispatcher", "emitter"),
	"listen":   Set("Event", "events", "bus"),
	"connect":  nil,
	"off":      Set(),
}

var messageName = regexp.MustCompile(`^[A-Za-z][\w.:/*#-]{1,79}$`)

// message keeps a call that sends or receives by a name: the first argument
// that is one, written out or a constant.
func (t *traiter) message(i int, name string, args [][2]int) {
	m := model.MessageFact{Line: t.s.Line(i), Send: plainSends[name] || sends[name], Plain: plainSends[name] || plainReceives[name]}
	if !m.Send && !plainReceives[name] && !receives[name] {
		return
	}
	on := t.receiver(i)
	if must := carriers[name]; must != nil && !must[on] && !must[strings.ToLower(on)] {
		return
	}
	if !m.Plain && on == "" {
		return
	}
	for n, a := range args {
		if n > 3 {
			return
		}
		at := t.behindKeys(a)
		if at >= a[1] {
			continue
		}
		if t.s.Any(at, "{", "[") {
			at++
		}
		text, ok := t.text(at)
		if m.Name, m.Const = text, ""; !ok {
			m.Const = t.constantAt(at, a[1])
		}
		switch {
		case ok && messageName.MatchString(text), m.Const != "":
			t.keep(m)
			return
		case !ok && n == 0 && !m.Plain:
			return
		}
	}
}

// messageKeys are the names of arguments that give a message its name.
var messageKeys = Set("topics", "queues", "routing_key", "queue", "topic", "destination", "value", "name", "channel")

// behindKeys is where the value of an argument starts: topics = "…",
// routing_key="…"; its end where it is named for something else.
func (t *traiter) behindKeys(a [2]int) int {
	at := a[0]
	for t.s.IsIdent(at) && t.s.Any(at+1, "=", ":") {
		if !messageKeys[t.s.Text(at)] {
			return a[1]
		}
		at += 2
	}
	return at
}

// constantAt is the last part of a name written like a constant, which is all
// that the argument is.
func (t *traiter) constantAt(i, end int) string {
	for t.s.IsIdent(i) && i+2 < end && (t.s.Any(i+1, ".", "::")) {
		i += 2
	}
	if i+1 != end || !t.s.IsIdent(i) {
		return ""
	}
	name := t.s.Text(i)
	if len(name) > 2 && name[0] >= 'A' && name[0] <= 'Z' {
		return name
	}
	return ""
}

func (t *traiter) keep(m model.MessageFact) {
	if len(t.f.Messages) < maxTraits {
		t.f.Messages = append(t.f.Messages, m)
	}
}
