package sarnik.finding;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.language.Language;

/**
 * Words of time and of bounds as readers type them in another language, told as English has them, which {@link
 * DayPhrases} reads. They are in small letters and without accents.
 */
final class TypedWords {

    private static final List<String> MONTHS = List.of(
            "january",
            "february",
            "march",
            "april",
            "may",
            "june",
            "july",
            "august",
            "september",
            "october",
            "november",
            "december");

    private static final Set<String> UNITS = Set.of("day", "week", "month", "quarter", "year");

    /** Pairs of what is typed and what English has, by language; what is left out of a phrase stands as "-". */
    private static final Map<String, Map<String, String>> ENGLISH = Map.of(
            "es",
            words(
                    "enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre",
                    "dia=day dias=day semana=week semanas=week mes=month meses=month trimestre=quarter trimestres=quarter "
                            + "con=with o=or para=for por=by solo=only ano=year anos=year ultimo=last ultimos=last ultima=last ultimas=last pasado=last "
                            + "pasada=last este=this esta=this hoy=today desde=since hasta=until entre=between y=and "
                            + "e=and a=to al=to en=in de=- del=- el=- la=- los=- las=- setiembre=september",
                    "a partir de=since|despues de=after|antes de=before|ano hasta la fecha=year to date|"
                            + "mas de=over|por encima de=over|al menos=at least|como minimo=at least|menos de=under|"
                            + "por debajo de=under|como maximo=at most"),
            "pt",
            words(
                    "janeiro fevereiro marco abril maio junho julho agosto setembro outubro novembro dezembro",
                    "dia=day dias=day semana=week semanas=week mes=month meses=month trimestre=quarter trimestres=quarter "
                            + "com=with ou=or para=for por=by so=only ano=year anos=year ultimo=last ultimos=last ultima=last ultimas=last passado=last "
                            + "passada=last este=this esta=this hoje=today desde=since ate=until entre=between e=and a=to "
                            + "em=in no=in na=in de=- do=- da=- o=- os=- as=-",
                    "a partir de=since|depois de=after|antes de=before|ano ate a data=year to date|mais de=over|"
                            + "acima de=over|pelo menos=at least|no minimo=at least|menos de=under|abaixo de=under|"
                            + "no maximo=at most"),
            "fr",
            words(
                    "janvier fevrier mars avril mai juin juillet aout septembre octobre novembre decembre",
                    "avec=with ou=or pour=for par=by seulement=only dans=in jour=day jours=day semaine=week semaines=week mois=month trimestre=quarter trimestres=quarter an=year "
                            + "ans=year annee=year annees=year dernier=last derniers=last derniere=last dernieres=last "
                            + "ce=this cet=this cette=this depuis=since entre=between et=and au=to a=to en=in "
                            + "de=- du=- d=- le=- la=- les=- l=-",
                    "aujourd hui=today|a partir de=since|apres=after|avant=before|jusqu au=until|jusqu a=until|"
                            + "jusqu en=until|plus de=over|au dessus de=over|au-dessus de=over|au moins=at least|"
                            + "moins de=under|au-dessous de=under|au plus=at most"),
            "de",
            words(
                    "januar februar marz april mai juni juli august september oktober november dezember",
                    "mit=with oder=or fur=for nur=only tag=day tage=day tagen=day woche=week wochen=week monat=month monate=month monaten=month "
                            + "quartal=quarter quartale=quarter quartalen=quarter jahr=year jahre=year jahren=year "
                            + "letzte=last letzten=last letzter=last letztes=last diese=this dieser=this dieses=this "
                            + "diesen=this heute=today seit=since ab=since nach=after vor=before bis=to zwischen=between "
                            + "und=and von=from vom=from im=in in=in die=- der=- den=- dem=- das=- maerz=march",
                    "jahr bis heute=year to date|mehr als=over|uber=over|mindestens=at least|weniger als=under|"
                            + "unter=under|hochstens=at most"));

    private TypedWords() {}

    private static Map<String, String> words(String months, String single, String several) {
        Map<String, String> words = new HashMap<>();
        String[] names = months.split(" ");
        for (int m = 0; m < names.length; m++) words.put(names[m], MONTHS.get(m));
        for (String pair : single.split(" "))
            words.put(pair.substring(0, pair.indexOf('=')), pair.substring(pair.indexOf('=') + 1));
        for (String pair : several.split("\\|"))
            words.put(pair.substring(0, pair.indexOf('=')), pair.substring(pair.indexOf('=') + 1));
        return words;
    }

    /** What is typed, as English has it; as it stands where English is spoken, or where nothing of it is known. */
    static String english(String plain) {
        Map<String, String> known = ENGLISH.get(Language.spoken().tag());
        if (known == null) return plain;
        String[] typed = plain.split(" ");
        List<String> told = new ArrayList<>();
        for (int at = 0; at < typed.length; ) {
            int count = Math.min(4, typed.length - at);
            while (count > 1 && !known.containsKey(joined(typed, at, count))) count--;
            String words = joined(typed, at, count);
            // A day of the month with a point behind it: 3. Juni.
            String bare = words.matches("\\d{1,2}\\.") ? words.substring(0, words.length() - 1) : words;
            String english = known.getOrDefault(bare, bare);
            if (!english.equals("-")) told.add(english);
            at += count;
        }
        ordered(told);
        String english = String.join(" ", told);
        // "Up to a day" ends with it; between two days it leads from one to the other.
        return english.startsWith("to ") ? "until " + english.substring("to ".length()) : english;
    }

    private static String joined(String[] typed, int at, int count) {
        return String.join(" ", List.of(typed).subList(at, at + count));
    }

    /** "30 last day" and "month last" in the order that English has, and a count before its unit as it is. */
    private static void ordered(List<String> told) {
        for (int i = 0; i + 1 < told.size(); i++) {
            boolean behind = told.get(i + 1).equals("last");
            boolean moves =
                    behind && (UNITS.contains(told.get(i)) || told.get(i).matches("\\d{1,4}"));
            if (moves) {
                told.add(i, "last");
                told.remove(i + 2);
            }
        }
    }
}
