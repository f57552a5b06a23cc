using Formatum.Core.Stories;

namespace Formatum.Demo;

/// <summary>The words of the newsletter, invented as all of the demo is.</summary>
internal static class NewsletterText
{
    private static Paragraph Title(string words, TextStyle running, double size = 20) => new(words, running with
    {
        Family = "Fraunces",
        Size = size,
        Leading = size * 1.2,
        Alignment = TextAlignment.Left,
        Hyphenate = false,
        Indent = 0,
        SpaceBefore = size / 2,
        SpaceAfter = 4,
    });

    private static IEnumerable<Paragraph> Section(string title, TextStyle running, params string[] paragraphs) => [Title(title, running, 14),
        .. paragraphs.Select((p, i) => new Paragraph(p, i == 0 ? running with { Indent = 0 } : running))];

    public static Paragraph[] Lead(TextStyle running) =>
    [
        Title("The wood is in", running),
        new("Nine cords of split ash came up the lane in the last dry week of the month, and the big kiln will be fired again before the " +
            "first frost. It takes two days to pack it, a day and a night to bring it up, and most of a week to wait.", running with { Indent = 0 }),
        new("The shelves nearest the firebox are for the heavy jars: they like the ash. Plates go to the back, where the flame is soft and " +
            "the glaze stays where it was put. Between them, on the three middle shelves, stand the bowls that nobody can promise anything " +
            "about. They come out grey, or honey, or the brown of a wet bank, and every year there are two or three that we keep for " +
            "ourselves and do not talk about.", running),
        new("Opening day is the second Saturday. There will be soup.", running with { Italic = true }),
        .. Section("How a firing goes", running,
            "The first fire is a small one, lit in the mouth of the kiln with the door bricks out, and it burns all evening without doing " +
                "anything that a visitor would notice. It drives the damp out of the bricks and out of the pots. If it is hurried, the thick ones" +
                " crack, and one hears them do it: a dull knock, like a knuckle on a cupboard.",
            "Towards midnight the door is bricked up and the fire moves under the floor. From then on somebody sits with it. The damper is " +
                "opened a finger at a time, and the colour in the spyhole is written into the book every quarter of an hour: black, blood, " +
                "cherry, orange, straw. The cones are looked at last. They tell what the heat has done, not what it is doing.",
            "By the second morning the stoking is a stoke every four minutes, thin wood, both sides, and nobody says much. When the flame " +
                "stands out of the chimney and stays there, the top shelf is ready; the bottom shelf takes its own time. Somebody always wants to" +
                " stop an hour too early, and it is never the same person."),
        .. Section("What the ash does", running,
            "Ash is lime and potash and a little of everything that the tree drank. Where it falls on hot clay it melts into a glass of its " +
                "own, green in the hollows and dry on the shoulders, and it runs. That is why the jars stand on wads of sand and flour, and why " +
                "their feet are left bare.",
            "Celadon, our glaze of the month, is the same thing done on purpose: feldspar, quartz and whiting with one part of iron in a " +
                "hundred, starved of air for the last three hours. With two parts it is olive. With none it is a very clean white that looks as " +
                "though it were sorry about something.",
            "We have fired it eleven times this year. Nine were good. The tenth was opened too soon and is full of fine cracks, which some " +
                "people like, and the eleventh is the one on these pages."),
        .. Section("Packing", running,
            "A kiln is packed from the back to the front and from the bottom to the top, and it is packed full, for an empty place is a place" +
                " where the flame goes instead of where it should. Every shelf stands on three props, never on four. A hand goes between the rim " +
                "of one pot and the foot of the next; between the top shelf and the arch, two.",
            "The list of what stands where is pinned beside the door and is wrong by noon. It is kept all the same, since a pot that comes " +
                "out well is worth nothing to the next firing unless somebody knows where it stood, what it was glazed with and who was at the " +
                "damper when the wind turned.",
            "Whoever wants to help is welcome from eight on the Thursday. Bring gloves, and a hat that nobody will miss."),
    ];

    public static Paragraph[] Contents(TextStyle caption) =>
    [
        new("In this number", caption with { Family = "Fraunces", Size = 13, Leading = 16, SpaceAfter = 4 }),
        new("The wood is in, and how a firing goes: this page and on", caption with { SpaceAfter = 3 }),
        new("Glaze of the month: page 2", caption with { SpaceAfter = 3 }),
        new("From the bench, and dates to keep: page 3", caption),
    ];

    public static Paragraph[] Notes(TextStyle running) =>
    [
        .. Section("From the bench", running,
            "The new wheel has come, and is quieter than the old one by exactly the amount that one used to hear from the road. It throws to " +
                "the left for whoever wants that. The old one goes to the children's table in the barn, with its treadle shortened by a hand.",
            "A word about handles. They are pulled, not cut, and they are put on when the mug is as hard as cheese that was left out. Sooner," +
                " and they sink; later, and they part in the firing with a line so thin that one only finds it with hot tea.",
            "Seconds are on the shelf behind the door, marked with a blue dot. They hold water, all of them. What is wrong with each is " +
                "written on its foot."),
        .. Section("A glaze to mix", running,
            "For those who asked: forty of feldspar, thirty of quartz, twenty of whiting and ten of the white clay from behind the mill, by " +
                "weight and dry. One of iron for celadon, eight for tenmoku. Sieve it twice. It wants to be as thick as cream on the Monday, and " +
                "it will be as thick as cream on the Tuesday only if somebody has stirred it.",
            "Put it on thin where it is to break over an edge, thick where it is to pool. On the inside of a bowl one coat is enough; pour it" +
                " in, turn it once, and pour it out again without stopping to admire it."),
        .. Section("Dates to keep", running,
            "Packing begins on the first Thursday, firing on the Friday at dusk, and the kiln is opened on the second Saturday at ten. " +
                "Evening classes go on through the winter on Tuesdays; there are two places left at the wheel and five at the long table.",
            "The glaze day for beginners has been moved to the week after, for want of a dry floor."),
    ];

    public static Paragraph[] Imprint(TextStyle caption) =>
    [
        new("The Kiln Post, {edition}. Written, set and printed at Brackenfold Kilns, four times a year, and sent to whoever asks for it.",
            caption with { Alignment = TextAlignment.Centre }),
    ];
}
