/** The same as checks-en.ts, in German. */
import type { PlainCheck } from './plain-check';

export const CHECKS_DE: Record<string, PlainCheck> = {
  'identity.title-names-site': [
    'Ihr Name im Reiter des Browsers',
    'Ihr Name fehlt dort, wo man ihn zuerst sucht: im Reiter und in Suchergebnissen.',
  ],
  'identity.home-page': ['Die richtige Startseite', 'Besucher sehen nicht die Startseite, die geplant war.'],
  'identity.no-default-title': [
    'Eigene Seitentitel',
    'Einige Titel sind die, mit denen die Software geliefert wurde.',
  ],
  'identity.no-default-tagline': [
    'Eigene Beschreibungen',
    'Einige Beschreibungen sind die, mit denen die Software geliefert wurde.',
  ],
  'identity.site-name': [
    'Ihr Name für Suchmaschinen',
    'Suchmaschinen erfahren einen anderen Namen als Ihren.',
  ],
  'identity.language': [
    'Die Sprache der Seiten',
    'Vorleseprogramme und Übersetzer halten die Seiten für eine andere Sprache.',
  ],
  'identity.contact-email': [
    'Ihre Mailadresse auf der Website',
    'Besucher finden die Adresse nicht, an die sie schreiben sollen.',
  ],
  'identity.private-addresses': [
    'Private Adressen bleiben privat',
    'Eine private Mailadresse ist für alle zu lesen, auch für Versender von Werbung.',
  ],
  'identity.email-domain': [
    'Eine Mailadresse unter Ihrem Namen',
    'Die gezeigte Adresse gehört zu einem anderen Namen als Ihre Website.',
  ],
  'identity.phone': ['Ihre Telefonnummer', 'Die Telefonnummer fehlt oder ist nicht die vereinbarte.'],
  'identity.profile-links': [
    'Verweise auf Ihre Profile',
    'Ein Verweis führt zu einem fremden Profil oder ins Leere.',
  ],
  'identity.organisation-data': [
    'Wer Sie sind, für Suchmaschinen',
    'Suchmaschinen erfahren Name, Adresse und Logo nicht in ihrer eigenen Form.',
  ],
  'identity.default-author': [
    'Der Name der Autorin oder des Autors',
    'Seiten nennen jemanden, den es nicht gibt.',
  ],
  'identity.required-pages': [
    'Seiten, die da sein müssen',
    'Eine vereinbarte oder vorgeschriebene Seite ist nicht zu erreichen.',
  ],
  'identity.no-placeholder-text': ['Fülltext', 'Text, der nur Platz füllen sollte, ist noch zu lesen.'],
  'identity.no-host-badge': [
    'Das Zeichen des Anbieters',
    'Die Seiten werben für den Anbieter des Speicherplatzes.',
  ],
  'identity.theme-colour': [
    'Ihre Farbe um die Seite',
    'Auf Telefonen ist der Browser nicht in Ihrer Farbe getönt.',
  ],
  'identity.copyright-year': [
    'Das Jahr am Fuß der Seite',
    'Das Jahr ist alt, und die Website wirkt verlassen.',
  ],
  'identity.wording-approved': ['Ihr Ja zu den Texten', 'Name, Leitsatz und Texte warten noch auf Ihr Ja.'],
  'identity.time-zone': [
    'Datum und Uhrzeit, wie Sie sie schreiben',
    'Datum oder Uhrzeit erscheinen wie in einem anderen Land.',
  ],
  'https.answers': [
    'Die Website ist sicher zu erreichen',
    'Die Website antwortet nicht über eine sichere Verbindung.',
  ],
  'https.certificate-valid': [
    'Das Zertifikat hinter dem Schloss',
    'Browser warnen Besucher vor der Website.',
  ],
  'https.certificate-names': [
    'Das Zertifikat gilt für jeden Namen',
    'Unter einem Ihrer Namen warnen Browser die Besucher.',
  ],
  'https.certificate-days': [
    'Das Ende des Zertifikats',
    'Das Zertifikat endet bald; danach warnen Browser die Besucher.',
  ],
  'https.certificate-chain': [
    'Das Zertifikat kommt vollständig an',
    'Manche Telefone und Programme trauen der Website nicht.',
  ],
  'https.certificate-key': [
    'Die Stärke des Zertifikats',
    'Das Zertifikat ist schwächer, als heute für sicher gilt.',
  ],
  'https.protocol': [
    'Zeitgemäße Verschlüsselung',
    'Verbindungen können eine Verschlüsselung nutzen, die nicht mehr als sicher gilt.',
  ],
  'https.http-redirects': [
    'Alle bekommen die sichere Verbindung',
    'Wer die Adresse eintippt, bleibt womöglich auf einer Verbindung, die andere mitlesen.',
  ],
  'https.permanent-redirects': [
    'Der Weg zur sicheren Verbindung',
    'Suchmaschinen halten den Weg zur sicheren Adresse für vorübergehend.',
  ],
  'https.few-hops': [
    'Ein kurzer Weg zur Website',
    'Besucher werden im Kreis geschickt, bevor sie ankommen; das kostet Zeit.',
  ],
  'https.hsts': [
    'Browser merken sich die sichere Verbindung',
    'Browser merken sich nicht, dass sie sicher kommen sollen.',
  ],
  'https.hsts-safe': [
    'Ihre anderen Adressen bleiben erreichbar',
    'Eine Einstellung könnte Besucher von einer anderen Ihrer Adressen aussperren.',
  ],
  'https.no-mixed-content': [
    'Alles auf der Seite ist sicher',
    'Teile der Seiten kommen unsicher, und Browser lassen sie weg.',
  ],
  'https.no-insecure-links': [
    'Verweise auf die sichere Adresse',
    'Einige Verweise führen noch zur unsicheren Adresse.',
  ],
  'https.secure-forms': ['Formulare senden sicher', 'Was Besucher eintippen, können andere unterwegs lesen.'],
  'https.secure-cookies': [
    'Cookies sind geschützt',
    'Cookies könnten unterwegs oder von fremden Programmen gelesen werden.',
  ],
  'https.protective-headers': [
    'Schutz vor Missbrauch der Seiten',
    'Andere könnten Ihre Seiten als ihre eigenen zeigen.',
  ],
  'https.no-version-leak': [
    'Keine Hinweise für Angreifer',
    'Der Server verrät Angreifern, auf welche Version sie zielen können.',
  ],
  'domain.resolves': ['Ihre Adresse führt zu einem Server', 'Die Adresse führt ins Leere.'],
  'domain.own': [
    'Eine eigene Adresse',
    'Die Website steht unter dem Namen des Anbieters, nicht unter Ihrem.',
  ],
  'domain.connected': ['Ihre Adresse zeigt Ihre Website', 'Besucher sehen die Seite des Anbieters.'],
  'domain.records-match': [
    'Die Einstellungen der Adresse',
    'Die Einstellungen Ihrer Adresse sind nicht die vereinbarten.',
  ],
  'domain.forwarding': [
    'Die Adresse leitet zur Website weiter',
    'Die Weiterleitung führt nicht so zu Ihrer Website, wie sie soll.',
  ],
  'domain.no-stray-records': [
    'Keine Reste in den Einstellungen',
    'Alte Einstellungen schicken manche Besucher zu einem alten Server.',
  ],
  'domain.every-address': [
    'Jeder Server zeigt die Website',
    'Manche Besucher erreichen einen Server, der Ihre Website nicht zeigt.',
  ],
  'domain.preferred-host': [
    'Eine Adresse, mit oder ohne www',
    'Die Website steht unter mehreren Adressen; das teilt ihren Rang in Suchergebnissen.',
  ],
  'domain.path-kept': [
    'Verweise überstehen den Weg zur Hauptadresse',
    'Verweise auf innere Seiten enden auf der Startseite.',
  ],
  'domain.both-hosts': ['Beide Formen Ihrer Adresse', 'Mit oder ohne www: eine von beiden führt ins Leere.'],
  'domain.no-apex-alias': [
    'Die Hauptadresse ist regelgerecht eingerichtet',
    'Die Adresse ist so eingerichtet, dass Ihre Mail ausfallen kann.',
  ],
  'domain.no-dangling-alias': [
    'Keine Adresse zeigt ins Leere',
    'Eine Ihrer Adressen zeigt auf einen Platz, den sich andere nehmen könnten.',
  ],
  'domain.name-servers': [
    'Die Server, die Ihre Adresse kennen',
    'Die Server, die Ihre Adresse bekannt geben, sind nicht die vereinbarten oder antworten nicht.',
  ],
  'domain.delegation-agrees': [
    'Das Adressbuch stimmt überein',
    'Zwei Stellen nennen verschiedene Server für Ihre Adresse.',
  ],
  'domain.authorities-agree': [
    'Alle Server geben dieselbe Antwort',
    'Besucher landen an verschiedenen Orten, je nachdem, wen sie fragen.',
  ],
  'domain.ttl-for-launch': [
    'Ein schneller Wechsel am Starttag',
    'Der Wechsel am Starttag würde lange brauchen, bis er überall ankommt.',
  ],
  'domain.mail-survives': ['Ihre Mail übersteht den Umzug', 'Nach dem Umzug käme keine Mail mehr an.'],
  'domain.ds-fits': [
    'Das Siegel der Adresse passt zu den neuen Servern',
    'Nach dem Umzug würde die Adresse für eine Fälschung gehalten.',
  ],
  'domain.soa': ['Zeitangaben der Adresse', 'Änderungen der Adresse kommen womöglich spät an.'],
  'domain.mail-exchanger': ['Mail kann empfangen werden', 'Mail an Ihre Kontaktadresse kommt nicht an.'],
  'domain.mail-targets': ['Die Mailserver', 'Mail geht an einen Server, der nicht zu erreichen ist.'],
  'domain.spf': ['Wer in Ihrem Namen Mail senden darf', 'Ihre Mail kann für Werbung gehalten werden.'],
  'domain.dkim': ['Ihre Mail ist unterschrieben', 'Ihre Mail kann für Werbung gehalten werden.'],
  'domain.dmarc': [
    'Was mit gefälschter Mail geschieht',
    'Andere können unbemerkt in Ihrem Namen Mail senden.',
  ],
  'domain.no-mail-closed': [
    'Keine Mail in Ihrem Namen',
    'Andere können in Ihrem Namen Mail senden, obwohl Sie keine senden.',
  ],
  'domain.caa': [
    'Wer Zertifikate ausstellen darf',
    'Das nächste Zertifikat könnte nicht ausgestellt werden.',
  ],
  'domain.registration-days': [
    'Die Verlängerung Ihrer Adresse',
    'Die Registrierung Ihrer Adresse endet bald.',
  ],
  'domain.registration-status': [
    'Die Registrierung Ihrer Adresse',
    'Die Registrierung ist gesperrt oder wird bald gelöscht.',
  ],
  'domain.registration-lock': [
    'Die Sperre Ihrer Adresse',
    'Die Adresse ließe sich leichter wegbewegen, als sie sollte.',
  ],
  'domain.registrar': [
    'Wo Ihre Adresse registriert ist',
    'Die Adresse ist woanders registriert als vereinbart.',
  ],
  'domain.signed': [
    'Das Siegel Ihrer Adresse',
    'Das Siegel ist gebrochen, und viele Besucher erreichen die Website nicht.',
  ],
  'domain.access': [
    'Wir kommen hinein, wo wir müssen',
    'Wir kommen in eines der Konten nicht hinein, auf denen Ihre Website ruht.',
  ],
  'domain.renewal-owner': [
    'Wer die Verlängerung bezahlt',
    'Es ist nicht festgehalten, wer die Verlängerung Ihrer Adresse bezahlt.',
  ],
  'domain.transfer-ready': [
    'Der Umzug Ihrer Adresse ist vorbereitet',
    'Der Umzug ist noch nicht vorbereitet.',
  ],
  'indexing.kept-out': [
    'Der Entwurf bleibt Suchmaschinen fern',
    'Der Entwurf kann in Suchergebnissen auftauchen.',
  ],
  'indexing.let-in': [
    'Suchmaschinen dürfen herein',
    'Seiten bitten Suchmaschinen fernzubleiben; niemand wird sie finden.',
  ],
  'indexing.unexpected-noindex': [
    'Keine Seite ist versehentlich versteckt',
    'Seiten bitten Suchmaschinen fernzubleiben, ohne bekannten Grund.',
  ],
  'indexing.hidden-kept-out': [
    'Versteckte Seiten bleiben versteckt',
    'Seiten, die versteckt bleiben sollen, können in Suchergebnissen auftauchen.',
  ],
  'indexing.shown-in-full': [
    'Suchergebnisse zeigen Ihre Texte',
    'Suchergebnisse zeigen womöglich weniger, als sie könnten.',
  ],
  'indexing.robots-answers': [
    'Die Notiz an Suchmaschinen',
    'Suchmaschinen können die Notiz für sie nicht lesen.',
  ],
  'indexing.robots-allows': [
    'Die Notiz lässt Suchmaschinen herein',
    'Die Notiz hält Suchmaschinen von Seiten fern.',
  ],
  'indexing.robots-well-formed': [
    'Die Notiz ist regelgerecht geschrieben',
    'Die Notiz hat Fehler und kann falsch gelesen werden.',
  ],
  'indexing.robots-assets': [
    'Suchmaschinen sehen die Seite wie Sie',
    'Suchmaschinen dürfen womöglich nicht laden, was die Seiten richtig aussehen lässt.',
  ],
  'indexing.robots-no-secrets': ['Die Notiz verrät nichts', 'Die Notiz sagt allen, wo Privates liegt.'],
  'indexing.sitemap-found': [
    'Das Seitenverzeichnis für Suchmaschinen',
    'Das Seitenverzeichnis fehlt oder ist nicht zu lesen.',
  ],
  'indexing.sitemap-limits': [
    'Das Verzeichnis hält seine Grenzen ein',
    'Teile des Seitenverzeichnisses werden nicht gelesen.',
  ],
  'indexing.sitemap-pages': [
    'Das Verzeichnis nennt die richtigen Seiten',
    'Das Verzeichnis nennt Seiten, die nicht gefunden werden sollen.',
  ],
  'indexing.sitemap-complete': ['Das Verzeichnis ist vollständig', 'Im Verzeichnis fehlen Seiten.'],
  'indexing.canonical-present': [
    'Jede Seite nennt ihre eigene Adresse',
    'Suchmaschinen müssen raten, welche Adresse einer Seite gilt.',
  ],
  'indexing.canonical-host': [
    'Seiten nennen die richtige Adresse',
    'Seiten schicken Suchmaschinen zu einer anderen Adresse und werden womöglich gar nicht gefunden.',
  ],
  'indexing.canonical-agrees': [
    'Die genannten Adressen stimmen',
    'Seiten nennen eine Adresse, die nicht zu ihnen führt.',
  ],
  'indexing.canonical-own': [
    'Seiten stehen für sich',
    'Innere Seiten geben sich Suchmaschinen gegenüber als Startseite aus.',
  ],
  'indexing.no-staging-links': ['Kein Verweis auf den Entwurf', 'Verweise führen Besucher zum Entwurf.'],
  'indexing.not-found-status': [
    'Fehlende Seiten sagen es',
    'Seiten, die es nicht gibt, sehen aus, als gäbe es sie.',
  ],
  'indexing.old-addresses': [
    'Alte Verweise gelten noch',
    'Verweise und Lesezeichen auf Ihre frühere Website führen ins Leere.',
  ],
  'indexing.readable-addresses': ['Lesbare Adressen', 'Die Adressen der Seiten sagen Menschen nichts.'],
  'indexing.no-holding-page': ['Die Ankündigungsseite ist weg', 'Besucher sehen noch die Ankündigungsseite.'],
  'indexing.holding-page-gone': [
    'Die Ankündigungsseite ist nicht mehr zu finden',
    'Die frühere Ankündigungsseite ist noch zu finden.',
  ],
  'indexing.holding-page': [
    'Die Ankündigungsseite',
    'Der Ankündigungsseite fehlt etwas, das Besucher oder Suchmaschinen brauchen.',
  ],
  'indexing.staging-closed': [
    'Der Entwurf ist geschlossen',
    'Der Entwurf kann noch besucht und gefunden werden.',
  ],
  'indexing.links-answer': [
    'Verweise innerhalb der Website',
    'Verweise führen zu Seiten, die es nicht gibt.',
  ],
  'indexing.links-direct': ['Verweise führen geradewegs hin', 'Verweise machen einen Umweg.'],
  'indexing.outside-links': [
    'Verweise auf andere Websites',
    'Verweise auf andere Websites führen ins Leere.',
  ],
  'indexing.alternates': [
    'Seiten in anderen Sprachen kennen einander',
    'Besucher bekommen womöglich die falsche Sprache zu sehen.',
  ],
  'indexing.no-duplicates': [
    'Jede Seite einmal',
    'Eine Seite steht unter zwei Adressen; das teilt ihren Rang.',
  ],
  'indexing.handed-in': [
    'Suchmaschinen wissen von der Website',
    'Suchmaschinen wurde die Website noch nicht gemeldet.',
  ],
  'verification.tokens-present': [
    'Der Nachweis, dass die Website Ihnen gehört',
    'Ein Dienst weiß nicht mehr, dass die Website Ihnen gehört.',
  ],
  'verification.tokens-own': ['Kein fremder Nachweis', 'Die Website trägt den Nachweis einer anderen Firma.'],
  'verification.tokens-known': [
    'Nur bekannte Nachweise',
    'Die Website trägt einen Nachweis, den niemand kennt.',
  ],
  'verification.analytics-present': [
    'Besuche werden gezählt',
    'Besuche mancher Seiten werden nicht gezählt.',
  ],
  'verification.analytics-once': ['Besuche werden einmal gezählt', 'Besuche werden doppelt gezählt.'],
  'verification.analytics-own': [
    'Besuche werden für Sie gezählt',
    'Besuche werden für jemand anderen gezählt.',
  ],
  'verification.analytics-off-staging': [
    'Der Entwurf wird nicht gezählt',
    'Unsere eigenen Besuche des Entwurfs zählen als Ihre Besucher.',
  ],
  'verification.consent-first': [
    'Besucher werden zuerst gefragt',
    'Das Messen beginnt, bevor Besucher gefragt werden.',
  ],
  'verification.script-placement': [
    'Zusätzliche Dienste stehen am rechten Ort',
    'Ein zusätzlicher Dienst steht nicht dort, wo er soll.',
  ],
  'verification.scripts-expected': [
    'Nur vereinbarte fremde Dienste',
    'Die Website lädt etwas von einem Dienst, der nicht vereinbart war.',
  ],
  'verification.scripts-once': ['Dienste laden einmal', 'Ein Dienst wird doppelt geladen; das kostet Zeit.'],
  'verification.nothing-before-consent': [
    'Vor dem Ja wird nichts gespeichert',
    'Etwas wird gemessen oder gespeichert, bevor Besucher zustimmen.',
  ],
  'verification.hits-seen': ['Ein Besuch wird wirklich gezählt', 'Das Zählen geschieht nicht oder doppelt.'],
  'metadata.title-present': [
    'Jede Seite hat einen Titel',
    'Eine Seite hat keinen Titel im Reiter und in Suchergebnissen.',
  ],
  'metadata.title-length': [
    'Titel passen in Suchergebnisse',
    'Titel werden abgeschnitten oder sagen zu wenig.',
  ],
  'metadata.title-unique': [
    'Titel unterscheiden sich',
    'Seiten sind in Suchergebnissen nicht zu unterscheiden.',
  ],
  'metadata.description-present': [
    'Jede Seite hat eine Beschreibung',
    'Suchergebnisse zeigen irgendeinen Satz der Seite.',
  ],
  'metadata.description-length': [
    'Beschreibungen passen in Suchergebnisse',
    'Beschreibungen werden abgeschnitten oder sagen zu wenig.',
  ],
  'metadata.description-unique': [
    'Beschreibungen unterscheiden sich',
    'Seiten sagen in Suchergebnissen dasselbe von sich.',
  ],
  'metadata.description-names-site': [
    'Ihr Name in der Beschreibung',
    'Die Beschreibung der Startseite nennt Sie nicht.',
  ],
  'metadata.key-phrases': [
    'Die Wörter, nach denen man sucht',
    'Titel und Beschreibung fehlen die Wörter, nach denen man sucht.',
  ],
  'metadata.not-inherited': ['Eigene Texte der Seite', 'Seiten zeigen den allgemeinen Text der Website.'],
  'metadata.as-intended': [
    'Titel und Beschreibungen wie geschrieben',
    'Texte, die für eine Seite geschrieben wurden, stehen nicht dort.',
  ],
  'metadata.charset': [
    'Buchstaben erscheinen richtig',
    'Besondere Buchstaben erscheinen womöglich als Zeichen.',
  ],
  'metadata.viewport': [
    'Seiten passen zum Telefon',
    'Auf dem Telefon sind die Seiten zu klein oder lassen sich nicht vergrößern.',
  ],
  'metadata.one-main-heading': [
    'Eine Hauptüberschrift je Seite',
    'Vorleseprogramme können nicht sagen, worum es auf einer Seite geht.',
  ],
  'metadata.heading-order': [
    'Überschriften der Reihe nach',
    'Überschriften überspringen eine Stufe; das erschwert das Vorlesen.',
  ],
  'metadata.image-text': [
    'Bilder sind beschrieben',
    'Wer ein Bild nicht sieht, erfährt nicht, was es zeigt.',
  ],
  'metadata.control-names': [
    'Schaltflächen und Felder haben einen Namen',
    'Wer ein Vorleseprogramm nutzt, weiß nicht, was eine Schaltfläche tut.',
  ],
  'metadata.structured-data': [
    'Angaben für Suchmaschinen',
    'Angaben, die Suchmaschinen zeigen könnten, sind nicht zu lesen.',
  ],
  'metadata.no-refresh': [
    'Seiten bleiben, wo sie sind',
    'Eine Seite springt von selbst weiter, während man sie liest.',
  ],
  'metadata.hand-accessibility': ['Für alle zu bedienen', 'Tastatur und Kontrast sind noch durchzusehen.'],
  'sharing.preview-complete': [
    'Wie ein geteilter Verweis aussieht',
    'Ein geteilter Verweis erscheint ohne Bild oder Text.',
  ],
  'sharing.image-loads': ['Das Bild eines geteilten Verweises', 'Ein geteilter Verweis zeigt kein Bild.'],
  'sharing.image-description': [
    'Das geteilte Bild ist beschrieben',
    'Wer das geteilte Bild nicht sieht, erfährt nicht, was es zeigt.',
  ],
  'sharing.image-size': [
    'Die Größe des geteilten Bildes',
    'Das Bild eines geteilten Verweises ist klein oder abgeschnitten.',
  ],
  'sharing.image-weight': [
    'Das Gewicht des geteilten Bildes',
    'Das Bild ist zu schwer, und manche Dienste lassen es weg.',
  ],
  'sharing.address-agrees': [
    'Geteiltes wird zusammengezählt',
    'Geteiltes einer Seite wird wie von zweien gezählt.',
  ],
  'sharing.text-own': [
    'Der Text eines geteilten Verweises',
    'Ein geteilter Verweis zeigt einen Text, der nicht Ihrer ist.',
  ],
  'sharing.card': [
    'Die Form eines geteilten Verweises',
    'Manche Dienste zeigen einen geteilten Verweis klein.',
  ],
  'sharing.favicon': ['Das kleine Zeichen im Reiter', 'Das Zeichen fehlt oder ist nicht darzustellen.'],
  'sharing.icon-sharp': ['Das Zeichen ist scharf', 'Das Zeichen wirkt auf guten Bildschirmen unscharf.'],
  'sharing.icon-sizes-true': ['Die Größen des Zeichens', 'Browser wählen die falsche Größe des Zeichens.'],
  'sharing.touch-icon': [
    'Das Zeichen auf Telefonen',
    'Auf dem Startbildschirm eines Telefons hat die Website kein rechtes Zeichen.',
  ],
  'sharing.icon-own': ['Ein eigenes Zeichen', 'Das Zeichen ist das des Anbieters.'],
  'sharing.manifest': [
    'Auf dem Startbildschirm',
    'Auf einem Startbildschirm erscheint die Website nicht, wie sie soll.',
  ],
  'delivery.staging-locked': ['Der Entwurf ist verschlossen', 'Wer die Adresse hat, kann den Entwurf sehen.'],
  'delivery.staging-lifetime': ['Der Entwurf bleibt bestehen', 'Der Entwurf wird bald abgeschaltet.'],
  'delivery.matches-build': ['Alles wurde hochgeladen', 'Einige Dateien fehlen oder sind alt.'],
  'delivery.live-equals-staging': [
    'Die Website ist, was gezeigt wurde',
    'Die Website weicht von dem ab, was Ihnen gezeigt wurde.',
  ],
  'delivery.fresh': ['Besucher sehen die neueste Seite', 'Besucher sehen womöglich eine alte Kopie.'],
  'delivery.no-server-errors': ['Seiten öffnen sich ohne Fehler', 'Eine Seite antwortet mit einem Fehler.'],
  'delivery.no-exposed-files': ['Private Dateien sind privat', 'Private Dateien sind für alle zu lesen.'],
  'delivery.no-directory-listing': [
    'Ordner bleiben geschlossen',
    'Alle können in Ordner der Website schauen.',
  ],
  'delivery.response-time': ['Die Website antwortet schnell', 'Besucher warten, bevor etwas geschieht.'],
  'delivery.page-weight': ['Seiten sind leicht', 'Seiten sind schwer und auf Telefonen langsam.'],
  'delivery.picture-weight': ['Bilder sind leicht', 'Ein Bild ist so schwer, dass es die Seite bremst.'],
  'delivery.compressed': ['Texte werden gepackt gesendet', 'Seiten brauchen länger als nötig.'],
  'delivery.cached': ['Wer wiederkommt, wartet weniger', 'Wer wiederkommt, lädt erneut, was schon da ist.'],
  'delivery.fonts-used': [
    'Nur Schriften, die gebraucht werden',
    'Eine Schrift ist genannt, die kein Text nutzt.',
  ],
  'delivery.form-sender': ['Formulare nennen Sie', 'Ein Formular nennt noch den Anbieter als Absender.'],
  'delivery.comments': [
    'Kommentare wie vereinbart',
    'Kommentare sind offen oder geschlossen, anders als vereinbart.',
  ],
  'delivery.security-contact': [
    'Wohin man eine Lücke meldet',
    'Die Notiz für alle, die eine Lücke finden, ist abgelaufen.',
  ],
  'delivery.script-errors': [
    'Die Programme der Seite laufen',
    'Etwas auf einer Seite funktioniert womöglich nicht.',
  ],
  'delivery.requests-fail': ['Alles auf der Seite kommt an', 'Ein Teil einer Seite kommt nicht an.'],
  'delivery.phone-fits': [
    'Seiten passen auf ein Telefon',
    'Auf einem Telefon sind Seiten breiter als der Bildschirm oder zu klein zum Lesen.',
  ],
  'delivery.layout-still': [
    'Die Seite bleibt beim Laden ruhig',
    'Beim Laden springt etwas, und man drückt das Falsche.',
  ],
  'delivery.rendered-agrees': [
    'Suchmaschinen und Besucher sehen dasselbe',
    'Suchmaschinen bekommen womöglich einen anderen Text als Besucher.',
  ],
  'delivery.backup': [
    'Eine Sicherung, die sich zurückspielen lässt',
    'Es gibt keine neue Sicherung, oder niemand hat sie erprobt.',
  ],
  'delivery.forms-arrive': [
    'Mail aus Formularen kommt an',
    'Noch hat niemand erprobt, ob Mail aus den Formularen ankommt.',
  ],
  'delivery.accounts': ['Sichere Zugänge', 'Mitgelieferte Zugänge oder Passwörter sind noch da.'],
  'delivery.plan-fits': ['Der Tarif passt', 'Der Tarif deckt nicht alles ab, was die Website braucht.'],
  'delivery.upkeep': ['Die monatliche Pflege', 'Die Pflege dieses Monats steht noch aus.'],
  'delivery.small-screen': [
    'Auf einem Telefon durchgesehen',
    'Noch hat niemand alle Seiten auf einem Telefon durchgesehen.',
  ],
  'delivery.client-approval': ['Ihr Ja', 'Die Website wartet auf Ihr Ja oder hat sich seither geändert.'],
  'domain.mta-sts': [
    'Verschlüsselte Zustellung Ihrer E-Mail',
    'Absender, die darauf achten, stellen Ihre E-Mail vielleicht nicht sicher oder gar nicht zu.',
  ],
  'domain.tls-reports': [
    'Berichte über unverschlüsselte E-Mail',
    'Niemand erfährt, wenn E-Mail an Sie nicht sicher zugestellt werden konnte.',
  ],
};
