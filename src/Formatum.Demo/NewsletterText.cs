using Formatum.Core.Stories;

namespace Formatum.Demo;

/// <summary>The words of the newsletter, invented as all of the demo is.</summary>
internal static class NewsletterText
{
    private static IEnumerable<Paragraph> Section(string title, Func<string, string, Paragraph> styled, params string[] paragraphs) =>
        [styled("Section", title), .. paragraphs.Select((p, i) => styled(i == 0 ? "First paragraph" : "Running text", p))];

    public static Paragraph[] Lead(Func<string, string, Paragraph> styled) =>
    [
        styled("Heading", "The wood is in"),
        styled("Opening", "Nine cords of split ash came up the lane in the last dry week of the month, and the big kiln will be fired again before the " +
            "first frost. It takes two days to pack it, a day and a night to bring it up, and most of a week to wait."),
        styled("Running text", "The shelves nearest the firebox are for the heavy jars: they like the ash. Plates go to the back, where the flame is soft " +
            "and the glaze stays where it was put. Between them, on the three middle shelves, stand the bowls that nobody can promise anything " +
            "about. They come out grey, or honey, or the brown of a wet bank, and every year there are two or three that we keep for " +
            "ourselves and do not talk about."),
        styled("Running text", "|Emphasis:Opening day is the second Saturday. There will be soup.|"),
        .. Section("How a firing goes", styled,
            "The first fire is a small one, lit in the mouth of the kiln with the door bricks out, and it burns all evening without doing " +
                "anything that a visitor would notice. It drives the damp out of the bricks and out of the pots. If it is hurried, the thick ones" +
                " crack, and one hears them do it: a dull knock, like a knuckle on a cupboard.",
            "Towards midnight the door is bricked up and the fire moves under the floor. From then on somebody sits with it. The damper is " +
                "opened a finger at a time, and the colour in the spyhole is written into the book every quarter of an hour: black, blood, " +
                "cherry, orange, straw. The cones are looked at last. They tell what the heat has done, not what it is doing.",
            "By the second morning the stoking is a stoke every four minutes, thin wood, both sides, and nobody says much. When the flame " +
                "stands out of the chimney and stays there, the top shelf is ready; the bottom shelf takes its own time. Somebody always wants to" +
                " stop an hour too early, and it is never the same person."),
        .. Section("What the ash does", styled,
            "Ash is lime and potash and a little of everything that the tree drank. Where it falls on hot clay it melts into a glass of its " +
                "own, green in the hollows and dry on the shoulders, and it runs. That is why the jars stand on wads of sand and flour, and why " +
                "their feet are left bare.",
            "Celadon, our glaze of the month, is the same thing done on purpose: feldspar, quartz and whiting with one part of iron in a " +
                "hundred, starved of air for the last three hours. With two parts it is olive. With none it is a very clean white that looks as " +
                "though it were sorry about something.",
            "We have fired it eleven times this year. Nine were good. The tenth was opened too soon and is full of fine cracks, which some " +
                "people like, and the eleventh is the one on these pages."),
        .. Section("Packing", styled,
            "A kiln is packed from the back to the front and from the bottom to the top, and it is packed full, for an empty place is a place" +
                " where the flame goes instead of where it should. Every shelf stands on three props, never on four. A hand goes between the rim " +
                "of one pot and the foot of the next; between the top shelf and the arch, two.",
            "The list of what stands where is pinned beside the door and is wrong by noon. It is kept all the same, since a pot that comes " +
                "out well is worth nothing to the next firing unless somebody knows where it stood, what it was glazed with and who was at the " +
                "damper when the wind turned.",
            "Whoever wants to help is welcome from eight on the Thursday. Bring gloves, and a hat that nobody will miss."),
        .. Section("When it is opened", styled,
            "The door comes down brick by brick, and the bricks are too warm to hold for long. Nobody reaches in. One looks: along the front row first, " +
                "where the ash has run, then past it, as far as the light goes.",
            "What is cracked is set on the left of the yard, what is stuck on the right, and what nobody expected in the middle, on the grass."),
    ];

    public static Paragraph[] Contents(Func<string, string, Paragraph> styled) =>
    [
        styled("Section", "In this number"),
        styled("Contents", "{contents}"),
        styled("Caption", ""),
        styled("Caption", "|Lead-in:Opening day| The second Saturday of the month, from ten, up the lane and to the left of the barn."),
    ];

    public static Paragraph[] Notes(Func<string, string, Paragraph> styled) =>
    [
        .. Section("From the bench", styled,
            "The new wheel has come, and is quieter than the old one by exactly the amount that one used to hear from the road. It throws to " +
                "the left for whoever wants that. The old one goes to the children's table in the barn, with its treadle shortened by a hand.",
            "A word about handles. They are pulled, not cut, and they are put on when the mug is as hard as cheese that was left out. Sooner," +
                " and they sink; later, and they part in the firing with a line so thin that one only finds it with hot tea.",
            "Seconds are on the shelf behind the door, marked with a blue dot. They hold water, all of them. What is wrong with each is " +
                "written on its foot."),
        .. Section("A glaze to mix", styled,
            "For those who asked: forty of feldspar, thirty of quartz, twenty of whiting and ten of the white clay from behind the mill, by " +
                "weight and dry. One of iron for celadon, eight for tenmoku. Sieve it twice. It wants to be as thick as cream on the Monday, and " +
                "it will be as thick as cream on the Tuesday only if somebody has stirred it.",
            "Put it on thin where it is to break over an edge, thick where it is to pool. On the inside of a bowl one coat is enough; pour it" +
                " in, turn it once, and pour it out again without stopping to admire it."),
        .. Section("Dates to keep", styled,
            "Packing begins on the first Thursday, firing on the Friday at dusk, and the kiln is opened on the second Saturday at ten. " +
                "Evening classes go on through the winter on Tuesdays; there are two places left at the wheel and five at the long table.",
            "The glaze day for beginners has been moved to the week after, for want of a dry floor."),
    ];

    public static Paragraph[] Firings(Func<string, string, Paragraph> styled) =>
    [
        styled("Section", "This year's firings"),
        styled("Table head", "Opened\tGlaze\tTop heat"),
        .. new[] { ("14 February", "Celadon", 1284), ("9 March", "Tenmoku", 1291), ("6 April", "Celadon", 1279), ("18 May", "Ash, unglazed", 1302),
            ("22 June", "Cobalt", 1266), ("27 July", "Celadon", 1288), ("31 August", "Tenmoku", 1293), ("5 October", "Celadon", 1281) }
            .Select(f => styled("Table line", $"{f.Item1}\t{f.Item2}\t{f.Item3} \u00b0C")),
        styled("Caption", "The heat is that of the top shelf, by the cones; the bottom one came within 15 degrees of it each time but the third."),
    ];

    public static Paragraph[] Prices(Func<string, string, Paragraph> styled) =>
    [
        styled("Section", "On the shelf now"),
        styled("Step", "Choose by the foot, not by the rim: it tells how the piece was thrown."),
        styled("Step", "Hold it to the light of the door."),
        styled("Step", "Pay in the tin. Change is under it."),
        styled("Price line", "Mug, celadon\t|Old price:14.00|\t|New price:11.50|"),
        styled("Price line", "Jug, tenmoku\t|Old price:38.00|\t|New price:32.00|"),
        styled("Price line", "Bowl, ash\t22.00"),
        styled("Price line", "Plate, cobalt\t27.50"),
        styled("Price line", "Teapot, celadon\t64.00"),
        styled("Price line", "Seconds, blue dot\t\t|New price:half|"),
    ];

    public const string Round = "Celadon is the same thing done on purpose: feldspar, quartz and whiting with one part of iron in a hundred, starved of air " +
        "for the last three hours. With two parts it is olive. With none it is a very clean white that looks as though it were sorry about something. We " +
        "have fired it eleven times this year. Nine were good. The tenth was opened too soon and is full of fine cracks, which some people like, and the " +
        "eleventh lies under these words. Put it on thin where it is to break over an edge, thick where it is to pool, and do not stop to admire it.";

    public static Paragraph[] Imprint(Func<string, string, Paragraph> styled) =>
    [
        styled("Imprint", "The Kiln Post, {edition}. Written, set and printed at Brackenfold Kilns, four times a year, and sent to whoever asks for it."),
    ];
}
