/** A description of two processes with all kinds of marks. */
export const connection = `
# Connection

When [trigger: a [party: household] applies for a connection], the [role: front desk] [activity: registers the [document: application]]
in the [system: case register]. She then [activity: checks whether [decision: the application is complete]]. If
[decision: papers are missing], the front desk [activity: asks the household for them]. The household
[activity: sends the missing papers] [time: within ten working days]. Otherwise [result: the application lapses].

The [role: network engineer] [activity: looks whether [decision: the feeder can take the plant]]. If not, he
[activity: rejects the application] and [result: the case is closed].

[result: The plant is connected].

# Readings

[trigger: Every night at 2:00], [role: billing] [activity: reads all meters] in the [system: meter platform]. For each meter, it
[activity: stores the values].

{aside: We have worked like this for a long time.}
`;
